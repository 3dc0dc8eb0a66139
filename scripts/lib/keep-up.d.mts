export function keepUp(options: {
  start: () => Promise<{ ready: Promise<unknown>; ended: Promise<number> }>;
  stop: AbortSignal;
  say: (words: string) => void;
  pauses?: { first: number; second: number; most: number };
  steady?: number;
}): Promise<number>;
