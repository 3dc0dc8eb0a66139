import { afterPress } from "../after-press.ts";
import type { SearchMachine } from "./machine.ts";

/**
 * A pointer went down on a line of the list: the field keeps the focus, and the list stays as it is until the pointer is
 * up and its click was heard, so that the line that was pressed is the line that is taken.
 */
export function pressLine(machine: SearchMachine, event: Pick<Event, "preventDefault">): void {
  event.preventDefault();
  machine.hold();
  afterPress(() => machine.release());
}
