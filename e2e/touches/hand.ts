import type { Locator, Page } from '@playwright/test';
import { expect } from '../test.ts';

/** A hand that counts: a touch on something, and texts that are typed, which count apart. */
export class Hand {
  touches = 0;
  typed = 0;
  readonly page: Page;

  constructor(page: Page) {
    this.page = page;
  }

  async touch(target: Locator): Promise<void> {
    await target.tap();
    this.touches += 1;
  }

  /** Scrolls down a long list, which goes on as its end comes into sight. No touch of anything. */
  async scrollTo(target: Locator): Promise<Locator> {
    await expect(async () => {
      await this.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
      await expect(target).toBeVisible({ timeout: 500 });
    }).toPass();
    return target;
  }

  button(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name, exact: typeof name === 'string' }).first();
  }

  /** On the keys that the page shows, as one text. */
  async key(digits: string): Promise<void> {
    for (const digit of digits) await this.button(digit).tap();
    this.typed += 1;
  }

  /** Into the field that has the focus: an act puts the hand where something is to be typed. */
  async type(text: string): Promise<void> {
    await expect(this.page.locator('input:focus, textarea:focus')).toBeVisible();
    await this.page.keyboard.type(text);
    this.typed += 1;
  }
}

export interface Journey {
  readonly act: string;
  /** Touches before there were a search, meals of a whole rack and health, by the same count; null: it could not be done. */
  readonly before: number | string | null;
  /** Where one is when it is to be done. */
  readonly from: string;
  readonly at: string;
  /** More would be too many. */
  readonly most: number;
  readonly walk: (hand: Hand, farm: Farm) => Promise<void>;
}

/** Animals that the journeys are about. */
export interface Farm {
  readonly numbers: readonly string[];
  /** Of eight young, none of them in a tub yet. */
  readonly clutchId: string;
}

export const row = (page: Page, kind: string): Locator => page.locator(`.line.${kind}`).first();
export const said = (page: Page, text: string | RegExp): Promise<void> =>
  expect(page.getByRole('status').getByText(text).first()).toBeVisible();
