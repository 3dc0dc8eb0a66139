import { chromium } from "@playwright/test";
import { HEADLESS } from "../../bench/browser.ts";
import { ready, serverCount, stateFile } from "./house.ts";

/** Signs in once at each server, by the printed link, and keeps the cookies for all tests. */
export default async function signIn(): Promise<void> {
  const browser = await chromium.launch(HEADLESS);
  for (let number = 1; number <= serverCount(); number++) {
    const page = await browser.newPage();
    await page.goto(ready(number).signIn);
    await page.waitForURL(/\/forms\/become-a-reader\/rehearse$/);
    await page.context().storageState({ path: stateFile(number) });
    await page.close();
  }
  await browser.close();
}
