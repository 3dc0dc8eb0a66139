export { effectiveBinding, type Filling, fillingsFor, lookupIn, shortLine } from "./binding.ts";
export { bindName, unbindName } from "./compose.ts";
export {
  checkDefinition,
  FIELD_KINDS,
  type Field,
  type FieldKind,
  type FormAnswer,
  type FormDefinition,
  type FormIssue,
} from "./definition.ts";
export { clearFilled, correct, EMPTY_STATE, type FormState, fill, giveBack } from "./state.ts";
