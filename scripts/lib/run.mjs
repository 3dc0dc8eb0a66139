import { spawn } from "node:child_process";
import { Trouble } from "./say.mjs";

/** Runs a program to its end with its output shown. @returns its exit code */
export function show(file, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(file, args, { stdio: "inherit", ...options });
    child.once("error", reject);
    child.once("exit", (code, signal) => resolve(code ?? (signal ? 130 : 1)));
  });
}

/** Runs a program to its end. @returns its exit code and all it wrote */
export function hear(file, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(file, args, { stdio: ["ignore", "pipe", "pipe"], ...options });
    let output = "";
    child.stdout.on("data", (piece) => (output += piece));
    child.stderr.on("data", (piece) => (output += piece));
    child.once("error", reject);
    child.once("close", (code) => resolve({ code: code ?? 1, output }));
  });
}

/** Runs a program that must succeed. @throws Trouble with the end of what it wrote */
export async function must(what, file, args, options = {}) {
  const { code, output } = await hear(file, args, options).catch((error) => ({ code: 1, output: error.message }));
  if (code !== 0) throw new Trouble(`${what} failed:\n${output.trim().split("\n").slice(-30).join("\n")}`);
  return output;
}

export const isRoot = process.getuid?.() === 0;
