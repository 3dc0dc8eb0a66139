import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { FullResult, Reporter, TestCase, TestResult } from "@playwright/test/reporter";
import { testHome } from "./house.ts";

/** Runs in a row after which a second try is no accident any more. */
const MOST_IN_A_ROW = 3;

/** For each test the runs in a row in which it passed at its second try only. */
export type InARow = Readonly<Record<string, number>>;

/** Counts this run in: what passed at once begins anew. */
export function countIn(before: InARow, names: readonly string[]): InARow {
  return Object.fromEntries(names.map((name) => [name, (before[name] ?? 0) + 1]));
}

/** Names what passed at its second try only. A test that did so three runs in a row fails the run: it is to be mended. */
export default class SecondTries implements Reporter {
  readonly #names: string[] = [];

  onTestEnd(test: TestCase, { retry, status }: TestResult): void {
    if (retry > 0 && status === "passed") this.#names.push(test.titlePath().filter(Boolean).join(" › "));
  }

  async onEnd({ status }: FullResult): Promise<{ status: FullResult["status"] } | undefined> {
    const file = join(testHome(), "second-tries.json");
    const now = countIn(read(file), this.#names);
    writeFileSync(file, JSON.stringify(now, null, 2));
    console.log(
      `\n  ${this.#names.length} tests needed a second try${this.#names.map((name) => `\n    ${name}`).join("")}`,
    );
    const often = this.#names.filter((name) => now[name] >= MOST_IN_A_ROW);
    if (!often.length) return undefined;
    console.log(
      `  ${MOST_IN_A_ROW} runs in a row, so this is a fault:${often.map((name) => `\n    ${name}`).join("")}`,
    );
    return { status: status === "passed" ? "failed" : status };
  }
}

function read(file: string): InARow {
  try {
    return JSON.parse(readFileSync(file, "utf8"));
  } catch {
    return {};
  }
}
