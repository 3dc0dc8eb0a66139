export { countryBox } from "./boxes.ts";
export { type Continent, continentOf } from "./continents.ts";
export { chosenFacts, FACT_KINDS, FACT_NAME, type FactKind, type Facts, factText, type OwnFact } from "./facts.ts";
export {
  type AutofillValues,
  autofillParts,
  autofillValues,
  envelopeLines,
  formatLine,
  partLookup,
} from "./format.ts";
export { hoursLine, hoursText, type ReadHours, readHours, WEEK } from "./hours.ts";
export { formatHouseNumber, lastNumber, parseHouseNumber } from "./house-number.ts";
export {
  AREA_KINDS,
  type AreaKind,
  EXACTNESS,
  type Exactness,
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
export { isRegion, regionOf } from "./profiles/regions.ts";
export { MAX_IDENTITY, parseRef, refOf } from "./ref.ts";
