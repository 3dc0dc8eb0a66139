import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

/** What axe finds wrong with a page: rule, places, and what is wrong there. By night only colours are looked at: all else is as by day. */
export async function axeFindings(page: Page): Promise<string[]> {
  // details of what is right take as long as the rules themselves
  const axe = new AxeBuilder({ page }).options({ resultTypes: ["violations"] });
  const isNight = await page.evaluate(() => matchMedia("(prefers-color-scheme: dark)").matches);
  const { violations } = await (isNight ? axe.withRules(["color-contrast"]) : axe).analyze();
  return violations.map(
    ({ id, nodes }) =>
      `${id}: ${nodes.map(({ target, failureSummary }) => `${target.join(" ")} (${failureSummary?.split("\n")[1]?.trim()})`).join("; ")}`,
  );
}
