export {
  effectiveBinding,
  type Filling,
  fillableFields,
  fillingsFor,
  isFillable,
  lineFor,
  lookupIn,
  shortLine,
  takesValues,
  tokenOf,
  typedFillings,
  writtenBy,
} from "./binding.ts";
export { compareForms, type Difference } from "./compare.ts";
export { bindName, unbindName } from "./compose.ts";
export { type FittedField, type FormCountry, fieldsFor, hasShape } from "./country.ts";
export {
  type AddressRule,
  addressesOf,
  addressOf,
  BUTTON_TASKS,
  type ButtonTask,
  checkDefinition,
  FACTS,
  FIELD_KINDS,
  FIELD_NAME,
  type Field,
  type FieldKind,
  type FormAnswer,
  type FormDefinition,
  type FormIssue,
  isOfBoth,
  isOfServices,
  MOST_FIELDS,
  type Option,
  REGISTER_FACTS,
  REGISTER_WAYS,
  type RegisterWay,
  ruleOf,
  type ServiceRule,
  type ServiceStart,
  type Show,
  type Start,
  serviceNamesOf,
} from "./definition.ts";
export { DISTANCE_UNITS, type DistanceUnit, distanceIn } from "./distance.ts";
export { addField, changeRule, freeName, moveField, placeField, removeField, renameField } from "./edit.ts";
export { type AddressGoingOut, type GoingOut, goingOut, type Origin } from "./going-out.ts";
export { formJson } from "./ordered.ts";
export {
  differingParts,
  EXACTNESS_WORDS,
  isBelow,
  isOnlyUnit,
  MAY_DIFFER,
  type Outcome,
  outcomeOf,
} from "./outcome.ts";
export { type FormOutline, type OutlineField, outlineOf } from "./outline.ts";
export { type FormExample, type FormProblem, problemsOf } from "./problems.ts";
export {
  type Changed,
  type ChangedState,
  changedFields,
  changedStates,
  isOfTheMoment,
  type Rehearsal,
  type RehearsalStep,
  stepWords,
  withStep,
} from "./rehearsal.ts";
export { isSameStatement } from "./same.ts";
export {
  officialAnswer,
  registersOf,
  type ServiceAnswers,
  serviceFillings,
  serviceInputs,
  serviceLine,
} from "./services.ts";
export { type AddressSoFar, type FieldVisibility, shownAddresses, visibilityOf } from "./shows.ts";
export {
  type Happening,
  isLookUp,
  isSameQuestion,
  partOf,
  type Question,
  questionFor,
  questionOf,
  startingField,
  startOf,
  type Values,
} from "./starts.ts";
export {
  ADDRESS_STATES,
  type AddressState,
  addressState,
  agree,
  clearFilled,
  confirmByRegister,
  correct,
  differencesIn,
  EMPTY_STATE,
  type FilledAddress,
  type FormState,
  fill,
  filledAddressOf,
  forget,
  giveBack,
  goBack,
  keepTyped,
  opened,
  type Step,
  statedValues,
  statingFields,
  writtenValues,
} from "./state.ts";
export { storedPosition } from "./stored.ts";
export { FORM_USES, type FormUse, usesOf, usesOfAddress } from "./uses.ts";
