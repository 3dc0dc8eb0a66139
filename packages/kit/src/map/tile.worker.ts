import { type PaintJob, paintJob } from "./paint-job.ts";

type Message = { paint: PaintJob } | { forget: number };

/** Jobs that nobody waits for any more are given up. */
const running = new Map<number, AbortController>();

self.addEventListener("message", async ({ data }: MessageEvent<Message>) => {
  if ("forget" in data) {
    running.get(data.forget)?.abort();
    return;
  }
  const controller = new AbortController();
  running.set(data.paint.id, controller);
  const painted = await paintJob(data.paint, controller.signal);
  running.delete(data.paint.id);
  self.postMessage(painted, { transfer: "bitmap" in painted ? [painted.bitmap] : [] });
});
