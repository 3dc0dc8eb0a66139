export { RowAsker, type RowQuestion } from "./ask-row.ts";
export type { Proposal } from "./by-values.ts";
export { countryCode } from "./countries.ts";
export { factNameOf, kindOfValues, LONGEST_FACT } from "./facts.ts";
export { type FoundCountry, findCountry } from "./find-country.ts";
export { type FoundProjection, findProjection, metresIn, type WeighedProjection } from "./find-projection.ts";
export {
  type EarlierStreet,
  type Gathered,
  type GatheredArea,
  type GatheredPostcode,
  type GatheredStreet,
  Gatherer,
  type Heaped,
  streetKey,
} from "./gather.ts";
export { type Grid, gridOf, gridsOf } from "./grids.ts";
export { type HeadUse, langsOfHeads, levelOfLabel, meaningOfLabel, namesSeveral } from "./heads.ts";
export {
  ANGLE_FORMS,
  COLUMN_FORMS,
  type ColumnForm,
  type ColumnUse,
  formOf,
  JOINED,
  MEANINGS,
  type Meaning,
  NAME_FORMS,
  NAMED,
  OF_FACTS,
  PLACED,
  type Projection,
  type Reading,
  sameUse,
} from "./parts.ts";
export { pointIn } from "./points.ts";
export { proposeColumns, standsInCapitals } from "./propose.ts";
export {
  DOUBTS,
  type Doubt,
  type ImportArea,
  type ImportRow,
  REFUSALS,
  type ReadRow,
  type Refusal,
  RowReader,
} from "./read-row.ts";
export { splitLine } from "./street-line.ts";
