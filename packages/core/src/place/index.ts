export { countryBox } from "./boxes.ts";
export {
  type AutofillValues,
  autofillParts,
  autofillValues,
  envelopeLines,
  formatLine,
  partLookup,
} from "./format.ts";
export { formatHouseNumber, lastNumber, parseHouseNumber } from "./house-number.ts";
export {
  AREA_KINDS,
  type AreaKind,
  EXACTNESS,
  type Exactness,
  type Facts,
  type HouseNumber,
  KINDS,
  type Kind,
  type Name,
  type OpeningHours,
  PARTS,
  type Part,
  type PartName,
  type Parts,
} from "./kinds.ts";
export { isOtherScript, pickName } from "./names.ts";
export {
  DIFFERENCE_HOWS,
  type Difference,
  type DifferenceHow,
  differencesText,
  isOnlyUnit,
  OUTCOMES,
  type Outcome,
} from "./outcomes.ts";
export { type CountryProfile, postcodeAsWritten, postcodeShape } from "./profile.ts";
export { allProfiles, heldProfile, PLAIN_PROFILE, profileOf } from "./profiles/index.ts";
export { regionOf } from "./profiles/regions.ts";
export { MAX_IDENTITY, parseRef, refOf } from "./ref.ts";
