/** Says what is being done. */
export function say(words) {
  console.log(`  ${words}`);
}

/** A failure that the reader can do something about; its message says what. */
export class Trouble extends Error {}

/** Runs the body of a command; prints what went wrong and what to do, and sets the exit code. */
export async function command(body) {
  try {
    process.exitCode = (await body()) ?? 0;
  } catch (error) {
    if (!(error instanceof Trouble)) throw error;
    console.error(`\n  ${error.message.replaceAll("\n", "\n  ")}\n`);
    process.exitCode = 1;
  }
}
