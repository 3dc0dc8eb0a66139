/** Writes that end when they are told to, for what happens meanwhile. */
export function slowWrites() {
  const open: { end: () => void; fail: () => void }[] = [];
  const write = () =>
    new Promise<void>((resolve, reject) => open.push({ end: resolve, fail: () => reject(new Error("gone")) }));
  return { open, write };
}

/** Lets what is ready to go on do so. */
export const turn = () => new Promise((resolve) => setTimeout(resolve));
