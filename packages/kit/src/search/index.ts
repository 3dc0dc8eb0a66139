export { SearchBox, type SearchBoxOptions } from "./box.ts";
export { ListKeys, type ListWays, type PressedKey } from "./list-keys.ts";
export { type Ask, type Choice, SearchMachine, type SearchOptions, type SearchState } from "./machine.ts";
