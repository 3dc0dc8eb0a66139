/** The look of the map's frame; the sheet itself is painted. */
export const MAP_STYLE = `
.bt-sheet { position: relative; width: 100%; height: 100%; overflow: hidden; touch-action: none; cursor: crosshair; user-select: none; background: var(--bt-sea, #dfe5e2); }
.bt-sheet:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: -2px; }
.bt-sheet canvas { position: absolute; inset: 0; width: 100%; height: 100%; display: block; }
.bt-zoom { position: absolute; left: 12px; bottom: 12px; display: grid; border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; overflow: hidden; background: var(--bt-list-paper, Canvas); }
.bt-zoom button { width: 32px; height: 32px; padding: 0; border: 0; background: none; color: var(--bt-list-ink, CanvasText); font: 17px/1 system-ui, sans-serif; cursor: pointer; }
.bt-zoom button + button { border-top: 1px solid var(--bt-field-edge, #8d8570); }
.bt-zoom button:hover { background: var(--bt-list-chosen, color-mix(in srgb, currentColor 9%, transparent)); }
.bt-zoom button:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: -2px; }
.bt-unseen { position: absolute; width: 1px; height: 1px; margin: -1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
`;
