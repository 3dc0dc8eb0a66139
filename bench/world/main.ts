import { printWorld } from "./table.ts";

printWorld((line) => console.log(line));
