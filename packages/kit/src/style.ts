const sheets = new Map<string, CSSStyleSheet>();

/** Puts a style sheet into a document or shadow root, once; nothing inline, so that a strict policy lets it pass. */
export function adopt(root: Document | ShadowRoot, css: string): void {
  let sheet = sheets.get(css);
  if (!sheet) {
    sheet = new CSSStyleSheet();
    sheet.replaceSync(css);
    sheets.set(css, sheet);
  }
  const target = root instanceof Document || root instanceof ShadowRoot ? root : document;
  if (!target.adoptedStyleSheets.includes(sheet)) target.adoptedStyleSheets = [...target.adoptedStyleSheets, sheet];
}
