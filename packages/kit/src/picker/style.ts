/** The style of the picker; variables as in the search box and the form. */
export const PICKER_STYLE = `
.bt-pick { display: flex; flex-direction: column; gap: 0.7em; min-height: 0; }
.bt-pick > h2 { margin: 0; font: 600 1.2em/1.2 var(--bt-serif, inherit); }
.bt-pick input {
  width: 100%; box-sizing: border-box; height: 2.43em; padding: 0 0.75em; font: inherit; color: inherit;
  background: var(--bt-field-paper, Field); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px;
}
.bt-pick input:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: 1px; }
.bt-pick > .bt-map { flex: 1 1 auto; height: min(24rem, 50vh); min-height: 9rem; border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; overflow: hidden; }
.bt-pick .bt-aimed { display: none; }
.bt-pick input, .bt-picked { unicode-bidi: plaintext; }
.bt-picked { min-height: 1.4em; margin: 0; font-family: var(--bt-serif, inherit); overflow-wrap: anywhere; }
.bt-picker-row { display: flex; gap: 0.7em; margin: 0; }
.bt-picker-row > button { height: 2.43em; padding: 0 1.2em; font: inherit; font-weight: 600; border-radius: 4px; cursor: pointer; }
.bt-picker-row > .bt-send { color: var(--bt-paper, Canvas); background: var(--bt-ink, CanvasText); border: 1px solid transparent; }
.bt-picker-row > .bt-look { color: inherit; background: none; border: 1px solid var(--bt-ink, currentColor); }
.bt-picker-row > button:disabled { opacity: 0.5; cursor: not-allowed; }
.bt-picker-row > button:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: 2px; }
.bt-picker { width: min(44rem, 100vw - 2rem); padding: 1.2em; color: inherit; background: var(--bt-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 6px; }
.bt-picker::backdrop { background: rgb(20 22 28 / 0.45); }
`;
