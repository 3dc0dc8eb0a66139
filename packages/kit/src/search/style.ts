/** The style of the search box; every colour is a variable that the page may set. */
export const SEARCH_STYLE = `
.bt-search { position: relative; }
.bt-search > input { width: 100%; box-sizing: border-box; }
:is(.bt-search > input, .bt-line, .bt-words) { unicode-bidi: plaintext; }
.bt-list {
  position: absolute; z-index: 30; top: calc(100% + 5px); inset-inline: 0; margin: 0; padding: 0; list-style: none;
  max-height: 21rem; overflow-y: auto; box-sizing: border-box;
  background: var(--bt-list-paper, Canvas); color: var(--bt-list-ink, CanvasText);
  border: 1px solid var(--bt-list-edge, currentColor); border-radius: 4px; box-shadow: 0 8px 22px rgb(0 0 0 / 0.12);
}
.bt-list[hidden] { display: none; }
.bt-list > li { display: flex; justify-content: space-between; align-items: baseline; gap: 0.9em; padding: 0.5em 0.75em; cursor: pointer; }
.bt-list > li + li { border-top: 1px solid var(--bt-list-rule, color-mix(in srgb, currentColor 14%, transparent)); }
.bt-list > li[aria-selected="true"] { background: var(--bt-list-chosen, color-mix(in srgb, currentColor 9%, transparent)); }
.bt-line { flex: 0 1 auto; overflow-wrap: anywhere; font-family: var(--bt-serif, inherit); }
.bt-line mark { background: none; color: inherit; text-decoration: underline; text-decoration-color: var(--bt-mark, #a8741a); text-decoration-thickness: 2px; text-underline-offset: 3px; }
.bt-list > li[data-sure] .bt-line::after { content: "  \u21b5" / ""; color: var(--bt-mark, #a8741a); }
.bt-beside { flex: 1 100 0; min-width: 4.5em; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; text-align: end; font-size: 0.84em; color: var(--bt-quiet, color-mix(in srgb, currentColor 72%, transparent)); }
.bt-more { flex: none; align-self: stretch; display: flex; align-items: center; margin-block: -0.5em; margin-inline-end: -0.75em; padding-inline: 0.75em; font-size: 0.84em; border-inline-start: 1px solid var(--bt-list-rule, color-mix(in srgb, currentColor 14%, transparent)); }
.bt-more:hover { background: var(--bt-list-chosen, color-mix(in srgb, currentColor 9%, transparent)); }
.bt-words { margin: 0.4em 0 0; font-size: 0.9em; color: var(--bt-warn, inherit); }
.bt-words[hidden] { display: none; }
@media (forced-colors: active) {
  .bt-list > li[aria-selected="true"] { outline: 2px solid Highlight; outline-offset: -2px; }
  .bt-line mark { background: Canvas; color: CanvasText; }
}
.bt-unseen { position: absolute; width: 1px; height: 1px; margin: -1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
`;
