import type { Story } from './life.ts';
import type { Truth } from './truth.ts';

/** An animal of the demo farm, with what only its maker knows of it. */
export interface Made {
  readonly id: string;
  readonly number: string;
  readonly sex: 'female' | 'male';
  readonly truth: Truth;
  readonly hatchedOn: string;
  readonly adultG: number;
  readonly birthG: number;
  readonly story: Story;
  readonly isGone: boolean;
}
