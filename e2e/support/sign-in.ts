import { chromium } from "@playwright/test";
import { CHROMIUM } from "../../bench/browser.ts";
import { ready, stateFile } from "./house.ts";

/** Signs in once, by the printed link, and keeps the cookies for all tests. */
export default async function signIn(): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage();
  await page.goto(ready().signIn);
  await page.waitForURL(/\/forms\/become-a-reader\/rehearse$/);
  await page.context().storageState({ path: stateFile() });
  await browser.close();
}
