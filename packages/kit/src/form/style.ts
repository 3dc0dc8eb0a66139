/** The style of a form that the kit renders; variables as in the search box. */
export const FORM_STYLE = `
.bt-form { container: bt-form / inline-size; display: grid; grid-template-columns: 1fr 1fr; gap: 0.95em 1em; margin: 0; }
.bt-form > * { grid-column: 1 / -1; min-width: 0; }
.bt-form > .bt-half { grid-column: span 1; }
.bt-form h1 { margin: 0; font: 600 1.6em/1.2 var(--bt-serif, inherit); }
.bt-form .bt-intro { margin: 0; color: var(--bt-quiet, inherit); }
.bt-field { display: block; }
:is(.bt-field input, .bt-field output, .bt-said, .bt-intro, .bt-help, .bt-forms dd, .bt-choice > span) { unicode-bidi: plaintext; }
.bt-form [hidden] { display: none; }
.bt-field > .bt-label { display: flex; justify-content: space-between; margin-bottom: 0.3em; font-size: 0.88em; color: var(--bt-quiet, inherit); }
.bt-field input, .bt-field select, .bt-field output {
  width: 100%; box-sizing: border-box; height: 2.43em; padding: 0 0.75em; font: inherit; color: inherit;
  background: var(--bt-field-paper, Field); border: 1px solid var(--bt-field-edge, #8d8570); border-inline-start-width: var(--bt-field-bar, 1px); border-radius: 4px;
}
.bt-field output { display: block; height: auto; min-height: 2.43em; padding-block: 0.55em; box-sizing: border-box; border-style: dashed; white-space: pre-line; overflow-wrap: anywhere; }
.bt-field :is(input, select):disabled { opacity: 0.6; cursor: not-allowed; }
.bt-field input:focus-visible, .bt-field select:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: 1px; }
.bt-field [data-bt="filled"] { border-inline-start: 4px solid var(--bt-part, var(--bt-filled, #9c3528)); padding-inline-start: calc(0.75em - 3px); }
.bt-field [data-bt="corrected"] { border-inline-start: 4px dashed var(--bt-mark, #a8741a); padding-inline-start: calc(0.75em - 3px); }
.bt-help { margin: 0.3em 0 0; font-size: 0.85em; color: var(--bt-quiet, inherit); }
.bt-map { height: 22rem; border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; overflow: hidden; }
.bt-still img { border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; }
.bt-outcome:has(> .bt-said:empty) { display: contents; }
.bt-outcome > .bt-said { margin: 0; font-size: 0.9em; color: var(--bt-warn, inherit); }
.bt-outcome > .bt-said:empty { position: absolute; }
.bt-choices { margin: 0.5em 0; padding: 0; list-style: none; border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; overflow: hidden; }
.bt-choices > li + li { border-top: 1px solid var(--bt-list-rule, color-mix(in srgb, currentColor 14%, transparent)); }
.bt-choice { display: flex; gap: 0.75em; align-items: baseline; width: 100%; padding: 0.5em 0.75em; font: inherit; text-align: start; color: inherit; background: var(--bt-field-paper, Field); border: 0; cursor: pointer; }
.bt-choice:is(:hover, :focus-visible) { background: var(--bt-list-chosen, color-mix(in srgb, currentColor 9%, transparent)); }
.bt-choice mark { background: none; color: inherit; text-decoration: underline; text-decoration-color: var(--bt-mark, #a8741a); text-decoration-thickness: 2px; text-underline-offset: 3px; }
.bt-choice .bt-number { font-size: 0.84em; color: var(--bt-quiet, inherit); }
.bt-service:has(> .bt-said:empty:only-child) { display: contents; }
.bt-service > .bt-said { margin: 0; font-size: 0.9em; color: var(--bt-quiet, inherit); }
.bt-service > .bt-said:empty { position: absolute; }
.bt-forms { display: grid; grid-template-columns: repeat(auto-fit, minmax(13em, 1fr)); gap: 0.6em; margin: 0.5em 0; }
.bt-forms > div { padding: 0.5em 0.75em; background: var(--bt-field-paper, Field); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; }
.bt-forms > div + div { border-inline-start: 4px solid var(--bt-service, #4c6678); }
.bt-forms dt { font-size: 0.84em; color: var(--bt-quiet, inherit); }
.bt-forms dd { margin: 0; }
.bt-forms mark { background: none; color: var(--bt-mark-ink, inherit); font-weight: 600; text-decoration: underline; text-decoration-color: var(--bt-mark, #a8741a); text-underline-offset: 3px; }
.bt-service > :is(.bt-take, .bt-keep) { height: 2.1em; padding: 0 1em; margin-inline-end: 0.6em; font: inherit; font-size: 0.95em; font-weight: 600; color: inherit; background: none; border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; cursor: pointer; }
.bt-service > :is(.bt-take, .bt-keep):focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: 1px; }
.bt-distance { display: grid; grid-template-columns: 1fr auto; gap: 0.5em; }
.bt-distance > output { min-width: 0; }
.bt-distance > select { width: auto; }
.bt-outcome > :is(.bt-typed, .bt-none, .bt-again, .bt-back, .bt-agree, .bt-restore) { margin: 0.25em 1.1em 0 0; }
:is(.bt-typed, .bt-none, .bt-again, .bt-back, .bt-agree, .bt-restore) { padding: 0; font: inherit; font-size: 0.9em; color: inherit; background: none; border: 0; border-bottom: 1px solid currentColor; cursor: pointer; }
.bt-look { height: 2.43em; padding: 0 1.2em; font: inherit; font-weight: 600; color: inherit; background: none; border: 1px solid var(--bt-ink, currentColor); border-radius: 4px; cursor: pointer; }
.bt-look:disabled { opacity: 0.5; cursor: not-allowed; }
.bt-form :is(.bt-choice, .bt-typed, .bt-none, .bt-again, .bt-back, .bt-agree, .bt-restore, .bt-look):focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: -2px; }
.bt-shape:empty { display: none; }
.bt-form > .bt-send { justify-self: start; height: 2.43em; padding: 0 1.2em; font: inherit; font-weight: 600; color: var(--bt-paper, Canvas); background: var(--bt-ink, CanvasText); border: 1px solid transparent; border-radius: 4px; cursor: pointer; }
@media (forced-colors: active) { .bt-form mark { background: Canvas; color: CanvasText; } }
@container bt-form (max-width: 20rem) {
  .bt-form > .bt-half { grid-column: 1 / -1; }
  .bt-list > li { flex-wrap: wrap; row-gap: 0; }
  .bt-beside { flex-basis: 100%; text-align: start; }
}
`;
