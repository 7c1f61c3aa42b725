import type { Locator, Page } from '@playwright/test';

/** How many times Tab is pressed before something is held to be out of reach. */
const most = 400;

/** Goes to something by the keyboard alone: Tab until it has the focus. */
export async function reach(page: Page, target: Locator) {
  await target.first().waitFor({ timeout: 15_000 });
  for (let i = 0; i < most; i++) {
    if (await target.evaluateAll((found) => found.some((e) => e === document.activeElement))) return;
    await page.keyboard.press('Tab');
  }
  const where = await page.evaluate(() => document.activeElement?.outerHTML.slice(0, 200));
  throw new Error(`${String(target)} is not reached by Tab; the focus is on ${where}.`);
}

/** Goes to something by Tab, and presses a key on it. */
export async function press(page: Page, target: Locator, key = 'Enter') {
  await reach(page, target);
  await page.keyboard.press(key);
}

/** Goes to a field by Tab, and types over what it has. */
export async function type(page: Page, field: Locator, text: string) {
  await reach(page, field);
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
}

/** Goes to a list of choices by Tab, and takes one as the keyboard does: by its first letters. */
export async function take(page: Page, field: Locator, option: string) {
  await reach(page, field);
  await page.keyboard.type(option);
}
