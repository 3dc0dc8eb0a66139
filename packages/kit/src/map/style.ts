/** The style of the map's frame; the map itself is painted, in a direction of its own whatever the page has. */
export const MAP_STYLE = `
.bt-map-view { position: relative; width: 100%; height: 100%; overflow: hidden; touch-action: none; cursor: crosshair; user-select: none; background: var(--bt-sea, #dfe5e2); color: var(--bt-list-ink, CanvasText); }
.bt-map-view[data-under="draggable"] { cursor: grab; }
.bt-map-view[data-under="card"] { cursor: pointer; }
.bt-map-view:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: -2px; }
.bt-view, .bt-view canvas { direction: ltr; position: absolute; inset: 0; width: 100%; height: 100%; display: block; }
.bt-map-view [hidden] { display: none !important; }
.bt-map-view :is(button, select, a):focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: -2px; }
.bt-zoom, .bt-tools { position: absolute; display: grid; border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; overflow: hidden; background: var(--bt-list-paper, Canvas); }
.bt-zoom { left: 12px; bottom: 12px; }
.bt-head { position: absolute; right: 12px; top: 12px; display: grid; gap: 8px; justify-items: right; }
.bt-tools { position: static; width: 34px; }
.bt-zoom button, .bt-tools button { width: 32px; height: 32px; padding: 0; border: 0; background: none; color: inherit; font: 17px/1 system-ui, sans-serif; cursor: pointer; }
.bt-zoom button + button, .bt-tools button + button { border-top: 1px solid var(--bt-field-edge, #8d8570); }
.bt-zoom button:hover, .bt-tools button:hover { background: var(--bt-list-chosen, color-mix(in srgb, currentColor 9%, transparent)); }
.bt-tools button[aria-pressed="true"] { background: var(--bt-ink, CanvasText); color: var(--bt-paper, Canvas); }
@media (forced-colors: active) { .bt-tools button[aria-pressed="true"] { outline: 3px solid Highlight; outline-offset: -4px; } }
.bt-map-view svg { width: 18px; height: 18px; display: block; margin: auto; fill: none; stroke: currentColor; stroke-width: 1.6; stroke-linejoin: round; stroke-linecap: round; }
.bt-device[data-state="shown"] path { fill: currentColor; fill-opacity: 0.25; }
.bt-device[data-state="finding"] path { stroke-dasharray: 3 3; animation: bt-finding 0.9s linear infinite; }
@keyframes bt-finding { to { stroke-dashoffset: -12; } }
@media (prefers-reduced-motion: reduce) { .bt-device[data-state="finding"] path { animation: none; } }
.bt-map-styles { height: 34px; max-width: 100%; padding: 0 8px; font: inherit; font-size: 0.93em; color: inherit; background: var(--bt-list-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; }
.bt-foot { position: absolute; left: 58px; right: 58px; bottom: 46px; display: grid; gap: 6px; justify-items: center; pointer-events: none; }
.bt-foot > * { pointer-events: auto; box-sizing: border-box; max-width: 30em; margin: 0; padding: 6px 11px; font-size: 0.9em; background: var(--bt-list-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; }
.bt-aimed { display: flex; flex-wrap: wrap; align-items: center; gap: 4px 12px; }
.bt-walk [role="listbox"], .bt-aimed p { unicode-bidi: plaintext; }
.bt-aimed p { margin: 0; min-height: 1.3em; font-family: var(--bt-serif, inherit); }
.bt-aimed button, .bt-hand-on button { padding: 0; font: inherit; color: inherit; background: none; border: 0; border-bottom: 1px solid currentColor; cursor: pointer; }
.bt-walk { position: absolute; left: 12px; top: 12px; max-width: 60%; padding: 6px 11px; font-size: 0.9em; background: var(--bt-list-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; }
.bt-walk:not(:focus-within) { width: 1px; height: 1px; padding: 0; border: 0; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
.bt-walk [role="listbox"] { font-family: var(--bt-serif, inherit); font-size: 1.05em; outline: 0; }
.bt-walk:focus-within { outline: 2px solid var(--bt-focus, #a8741a); }
.bt-hint { margin: 2px 0 0; font-size: 0.88em; color: var(--bt-quiet, inherit); }
.bt-card { position: absolute; left: 0; top: 0; box-sizing: border-box; width: max-content; max-width: min(20em, calc(100% - 16px)); max-height: calc(100% - 16px); overflow: auto; padding: 11px 14px; user-select: text; cursor: auto; background: var(--bt-list-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 5px; box-shadow: 0 6px 18px rgb(0 0 0 / 0.12); }
.bt-card h3 { margin: 0; margin-inline-end: 26px; font: 600 1.1em/1.3 var(--bt-serif, inherit); overflow-wrap: anywhere; }
.bt-card dl { display: grid; grid-template-columns: minmax(7.4em, auto) 1fr; gap: 3px 12px; margin: 8px 0 0; font-size: 0.92em; }
.bt-card dt { color: var(--bt-quiet, inherit); }
.bt-card dd { margin: 0; overflow-wrap: anywhere; white-space: pre-line; }
.bt-card dd a { color: inherit; }
.bt-card-more { margin: 8px 0 0; font-size: 0.92em; }
.bt-card-more summary { cursor: pointer; color: var(--bt-quiet, inherit); }
.bt-card-more dl { font-size: 1em; }
.bt-card-more img { display: block; width: 100%; aspect-ratio: 13 / 7; margin: 8px 0 0; background: var(--bt-list-edge, #ddd6c2); border-radius: 3px; }
.bt-card .bt-close { position: absolute; inset-inline-end: 6px; top: 6px; width: 28px; height: 28px; padding: 0; color: inherit; background: none; border: 0; cursor: pointer; }
.bt-hand-on { display: flex; flex-wrap: wrap; gap: 4px 14px; margin: 10px 0 0; font-size: 0.92em; }
.bt-hand-on a { color: inherit; text-decoration: none; border-bottom: 1px solid currentColor; }
.bt-card-words { margin: 6px 0 0; font-size: 0.88em; color: var(--bt-quiet, inherit); }
.bt-card-words:empty { display: none; }
.bt-credit { position: absolute; right: 0; bottom: 0; max-width: calc(100% - 120px); margin: 0; padding: 1px 8px 2px; overflow-wrap: anywhere; font-size: 11px; line-height: 1.35; background: color-mix(in srgb, var(--bt-list-paper, Canvas) 82%, transparent); }
.bt-unseen { position: absolute; width: 1px; height: 1px; margin: -1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
`;
