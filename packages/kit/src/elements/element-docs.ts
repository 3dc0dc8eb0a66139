/** A custom element as `custom-elements.json` and the types of frameworks describe it. */
export interface ElementDoc {
  className: string;
  file: string;
  about: string;
  /** `flag` is a boolean attribute: present or not. */
  attributes: Readonly<Record<string, { type: "text" | "number" | "flag"; about: string }>>;
  /** Events by name, each with the type of its detail. Each is fired under its former name with a colon too. */
  events: Readonly<Record<`bibliotope-${string}`, { detail: string; about: string }>>;
  parts: Readonly<Record<string, string>>;
  isFormAssociated?: true;
}

const SERVICE = {
  "web-key": { type: "text", about: "Key for pages." },
  url: { type: "text", about: "URL of the service; the page's own when it is left out." },
} as const;

const START = {
  at: { type: "text", about: "Position, LAT,LON." },
  zoom: { type: "number", about: "Zoom." },
} as const;

const PLACES = {
  countries: { type: "text", about: "Country codes, separated by commas." },
  kinds: { type: "text", about: "Kinds of record, separated by commas." },
  fills: {
    type: "text",
    about: "Fills the other controls of the form by their autofill tokens; the value is the section.",
  },
} as const;

/** @param text what NAME holds */
const sentAs = (text: string) =>
  ({ type: "text", about: `The form sends NAME (${text}), NAME-ref, NAME-lat and NAME-lon.` }) as const;

const STYLE = { type: "text", about: "streets, ground, heights or named-ground." } as const;

/** The elements by their tags. A test compares this with what their code reads, fires and offers for styling. */
export const ELEMENT_DOCS = {
  "bibliotope-search": {
    className: "SearchElement",
    file: "search-element.ts",
    about: "A search box for addresses and places that takes part in its form.",
    attributes: {
      ...SERVICE,
      ...PLACES,
      name: sentAs("the text"),
      value: { type: "text", about: "Initial text." },
      label: { type: "text", about: "Label." },
      placeholder: { type: "text", about: "Text in the empty input." },
      required: { type: "flag", about: "The form needs a text." },
      disabled: { type: "flag", about: "Disables the input." },
    },
    events: {
      "bibliotope-found": { detail: "RecordFeature", about: "A place was chosen." },
      "bibliotope-lost": { detail: "undefined", about: "The text is no longer the chosen place." },
    },
    parts: { label: "Label.", input: "Text input.", list: "List.", option: "Option of the list.", words: "Message." },
    isFormAssociated: true,
  },
  "bibliotope-map": {
    className: "MapElement",
    file: "map-element.ts",
    about: "An interactive map. 320 px high unless the page sets its height.",
    attributes: {
      ...SERVICE,
      ...START,
      label: { type: "text", about: "Name of the map for screen readers." },
      "map-style": STYLE,
      device: { type: "flag", about: "Offers to show the position of the device." },
      aims: { type: "flag", about: "Offers a crosshair." },
      grouped: { type: "flag", about: "Groups markers that overlap." },
      pictures: { type: "text", about: "URL of picture tiles to show instead of the map style." },
      attribution: { type: "text", about: "Attribution of the picture tiles; required with them." },
      "pictures-name": { type: "text", about: "Name of the picture tiles." },
      "pictures-most": { type: "number", about: "Last zoom with picture tiles." },
    },
    events: {
      "bibliotope-pressed": { detail: "Position", about: "The map was clicked or tapped." },
      "bibliotope-marker": {
        detail: "MarkerEvent",
        about: "A marker was clicked, moved, or its card was opened or closed.",
      },
    },
    parts: { frame: "The map." },
  },
  "bibliotope-still": {
    className: "StillElement",
    file: "still-element.ts",
    about: "A picture of the map.",
    attributes: {
      ...SERVICE,
      ...START,
      of: { type: "text", about: "Ref of a record." },
      points: { type: "text", about: "Numbered markers: LAT,LON;LAT,LON." },
      line: { type: "text", about: "A great-circle line with its length: LAT,LON;LAT,LON." },
      lang: { type: "text", about: "Languages of names." },
      "map-style": STYLE,
      width: { type: "number", about: "Width in pixels; 300 by default." },
      height: { type: "number", about: "Height in pixels; 200 by default." },
      label: { type: "text", about: "Alternative text." },
      control: { type: "flag", about: "A click opens the place; a menu has directions and copies the position." },
    },
    events: {},
    parts: { img: "The picture." },
  },
  "bibliotope-report": {
    className: "ReportElement",
    file: "report-element.ts",
    about: "Lets users report a wrong or missing address.",
    attributes: {
      ...SERVICE,
      of: { type: "text", about: "Ref of the record." },
      for: { type: "text", about: "Id of a search element whose chosen place is meant." },
      label: { type: "text", about: "Label of the button." },
    },
    events: { "bibliotope-reported": { detail: "Report", about: "A report was sent." } },
    parts: {
      button: "Button that opens the form.",
      form: "Form.",
      text: "Text area.",
      send: "Button that sends the report.",
      cancel: "Button that closes the form.",
      words: "Message.",
    },
  },
  "bibliotope-picker": {
    className: "PickerElement",
    file: "picker-element.ts",
    about: "A button that opens search and map in a dialog; takes part in its form.",
    attributes: {
      ...SERVICE,
      ...START,
      ...PLACES,
      label: { type: "text", about: "Heading of the dialog." },
      anywhere: { type: "flag", about: "Any position can be chosen." },
      name: sentAs("the line"),
    },
    events: { "bibliotope-picked": { detail: "PickedPlace", about: "A place was chosen." } },
    parts: { button: "Button that opens the dialog.", dialog: "Dialog." },
    isFormAssociated: true,
  },
} as const satisfies Readonly<Record<`bibliotope-${string}`, ElementDoc>>;
