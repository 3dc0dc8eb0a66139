export { RowAsker, type RowQuestion } from "./ask-row.ts";
export { type FoundProjection, findProjection } from "./find-projection.ts";
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
export {
  COLUMN_FORMS,
  type ColumnForm,
  type ColumnUse,
  formOf,
  MEANINGS,
  type Meaning,
  NAMED,
  type Projection,
  type Reading,
  sameUse,
} from "./parts.ts";
export { type Proposal, proposeColumns } from "./propose.ts";
export {
  type BroughtArea,
  type BroughtRow,
  DOUBTS,
  type Doubt,
  REFUSALS,
  type ReadRow,
  type Refusal,
  RowReader,
  splitLine,
} from "./read-row.ts";
