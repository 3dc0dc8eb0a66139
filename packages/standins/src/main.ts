import { startStandIns } from "./index.ts";

// started with a channel to whoever started it: it receives the addresses, and when it ends this ends too
const { urls, stop } = await startStandIns();
process.send?.(urls);
const end = () => void stop().then(() => process.exit());
process.on("disconnect", end);
process.on("SIGTERM", end);
