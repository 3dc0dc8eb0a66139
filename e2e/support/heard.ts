import type { Locator, Page } from "@playwright/test";

/** What the browser complains of: scripts that failed, and what a policy forbade. */
export function complaints(page: Page): string[] {
  const heard: string[] = [];
  page.on("pageerror", (error) => heard.push(error.message));
  page.on("console", (message) => message.type() === "error" && heard.push(message.text()));
  return heard;
}

/** The suggestions of a page in English, wherever its search box is. */
export const suggestions = (page: Page): Locator =>
  page.getByRole("listbox", { name: "Suggestions" }).getByRole("option");
