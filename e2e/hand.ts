import type { Locator, Page } from '@playwright/test';
import { expect } from './test';

/**
 * A hand that clicks and types as a person does, and counts. Times are those of the keystroke-level model (Card, Moran and Newell 1980):
 * a key 0.28 s for an average typist, pointing 1.1 s, a click 0.2 s, between mouse and keyboard 0.4 s, a thought before each act 1.35 s.
 */
export class Hand {
  static readonly S = { key: 0.28, point: 1.1, click: 0.2, home: 0.4, think: 1.35 } as const;
  clicks = 0;
  keys = 0;
  acts = 0;
  #moves = 0;
  constructor(readonly page: Page) {}

  /** What so many acts take a person, s; waiting for the program is not in it. */
  get seconds(): number {
    const { key, point, click, home, think } = Hand.S;
    return this.keys * key + this.clicks * (point + click) + this.#moves * 2 * home + this.acts * think;
  }
  async click(what: Locator): Promise<void> {
    this.acts++;
    this.clicks++;
    await what.click();
  }
  /** Clicks into a field, takes out what stands there where there is something, and types. */
  async type(field: Locator, text: string): Promise<void> {
    await this.click(field);
    this.#moves++;
    if ((await field.inputValue()) !== '') {
      this.keys += 2;
      await this.page.keyboard.press('Control+A');
    }
    this.keys += text.length;
    await this.page.keyboard.type(text);
  }
  /** Pastes what was copied elsewhere: one click and Ctrl+V. */
  async paste(field: Locator, text: string): Promise<void> {
    await this.click(field);
    this.#moves++;
    this.keys += 2;
    await field.fill(text);
  }
  /** Opens a list and picks an entry: two clicks. */
  async choose(list: Locator, label: string): Promise<void> {
    this.acts++;
    this.clicks += 2;
    await list.selectOption({ label });
  }
  /** Holds what was counted against what may be. */
  within(most: { minutes: number; clicks: number; keys: number }): void {
    const counted = { minutes: this.seconds / 60, clicks: this.clicks, keys: this.keys };
    for (const what of ['minutes', 'clicks', 'keys'] as const)
      expect(counted[what], what).toBeLessThanOrEqual(most[what]);
  }
}
