/** The frame of the view in relief. */
export const RELIEF_STYLE = `
.bt-relief { position: absolute; inset: 0; background: var(--bt-sea, #dfe5e2); cursor: grab; touch-action: none; }
.bt-relief:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: -2px; }
.bt-relief > canvas { position: absolute; inset: 0; display: block; width: 100%; height: 100%; }
.bt-relief-bar { position: absolute; left: 12px; top: 12px; display: flex; flex-wrap: wrap; max-width: calc(100% - 24px); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; overflow: hidden; background: var(--bt-list-paper, Canvas); }
.bt-relief-bar button { height: 32px; padding: 0 11px; font: inherit; font-size: 0.92em; color: inherit; background: none; border: 0; cursor: pointer; }
.bt-relief-bar button + button { border-left: 1px solid var(--bt-field-edge, #8d8570); }
.bt-relief-bar button:hover { background: var(--bt-list-chosen, color-mix(in srgb, currentColor 9%, transparent)); }
.bt-relief-words { position: absolute; left: 12px; bottom: 12px; max-width: calc(100% - 24px); box-sizing: border-box; margin: 0; padding: 6px 11px; font-size: 0.9em; background: var(--bt-list-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; }
`;
