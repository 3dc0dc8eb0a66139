/** @throws Error when the browser gives no more canvases: it has no memory for them */
const given = <C>(context: C | null): C => {
  if (!context) throw new Error("The browser has no room for another picture.");
  return context;
};

/** What draws on a canvas of the page. */
export const contextOf = (
  canvas: HTMLCanvasElement,
  settings?: CanvasRenderingContext2DSettings,
): CanvasRenderingContext2D => given(canvas.getContext("2d", settings));

/** What draws on a canvas that no page shows. */
export const hiddenContextOf = (
  canvas: OffscreenCanvas,
  settings?: CanvasRenderingContext2DSettings,
): OffscreenCanvasRenderingContext2D => given(canvas.getContext("2d", settings));
