import { startStandIns } from "./index.ts";

// started with a channel to whoever started it: it is told the addresses, and when it goes this goes too
const { urls, stop } = await startStandIns();
process.send?.(urls);
const end = () => void stop().then(() => process.exit());
process.on("disconnect", end);
process.on("SIGTERM", end);
