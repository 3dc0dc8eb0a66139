import { Waiting } from "../ui/Page.tsx";

/** Shown while the workbench, or the script of its first view, is loading. */
export const Opening = () => <Waiting words="Opening the workbench" />;
