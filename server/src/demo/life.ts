import type { NewRecord } from '@karyotome/contract';
import { addDays, daysBetween } from '@karyotome/core';
import type { Chance } from './chance.ts';

export type Story = 'shy' | 'in-blue' | 'bad-shed' | 'bold' | 'too-big' | 'moved-too-early' | null;

export interface Life {
  readonly hatchedOn: string;
  /** Records begin here: hatching, or the day the collection began to keep them. */
  readonly from: string;
  readonly until: string;
  readonly adultG: number;
  readonly birthG: number;
  readonly story: Story;
  /** A male fasting for this many days so far. */
  readonly fastingDays: number;
}

/** Expected weight in grams by age: a Gompertz curve through hatching weight. Invented numbers of a plausible shape. */
export function weightAt(ageDays: number, birthG: number, adultG: number, pace = 1): number {
  return adultG * Math.exp(-Math.log(adultG / birthG) * Math.exp(-0.0031 * pace * ageDays));
}

const PLANS = [
  { belowG: 300, every: 7, share: 0.125 },
  { belowG: 800, every: 10, share: 0.1 },
  { belowG: 1500, every: 14, share: 0.07 },
  { belowG: Infinity, every: 21, share: 0.05 },
];
const SIZES = [
  [4, 'pinky'],
  [10, 'fuzzy'],
  [20, 'pup'],
  [35, 'weaned'],
  [60, 'small'],
  [120, 'medium'],
] as const;
const sizeFor = (grams: number): string => SIZES.findLast(([from]) => grams >= from)?.[1] ?? 'pinky';

/** What the shy feeder weighs today: a tenth over the 600 g of a yearling tub. */
const SHY_G = 660;

/** Months of weights, sheds and meals that look like real ones, in date order. */
export function liveRecords(life: Life, chance: Chance): NewRecord[] {
  const pace =
    life.story === 'shy'
      ? 1.08
      : life.story === 'bold' || life.story === 'too-big' || life.story === 'in-blue'
        ? 1.32
        : chance.between(0.86, 1.1);
  const expected = (day: string): number =>
    weightAt(daysBetween(life.hatchedOn, day), life.birthG, life.adultG, pace);
  // The shy one has grown just out of its tub: a little over, not so much that it has to go.
  const scale = life.story === 'shy' ? (SHY_G - life.birthG) / (expected(life.until) - life.birthG) : 1;
  const mass = (day: string): number => {
    const grown = life.birthG + (expected(day) - life.birthG) * scale;
    const fasted = Math.max(0, life.fastingDays - daysBetween(day, life.until));
    return grown * (1 - 0.0007 * fasted);
  };
  const sheds = shedRecords(life, chance);
  const records: NewRecord[] = [
    ...sheds,
    ...weightRecords(life, mass, chance),
    ...mealRecords(life, mass, sheds, chance),
  ];
  return records.toSorted((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}

function shedRecords(life: Life, chance: Chance): NewRecord[] {
  const records: NewRecord[] = [];
  const shed = (on: string, body: Extract<NewRecord, { kind: 'shed' }>['body']): void => {
    if (on >= life.from && on <= life.until) records.push({ kind: 'shed', on, body });
  };
  const quietUntil =
    life.story === 'in-blue' || life.story === 'bad-shed' ? addDays(life.until, -24) : life.until;
  for (
    let day = addDays(life.hatchedOn, chance.whole(7, 10)), first = true;
    day <= quietUntil;
    first = false
  ) {
    if (!first) shed(addDays(day, -7), { stage: 'blue' });
    shed(day, { stage: 'shed', complete: !chance.isTrue(0.03), eyeCaps: true });
    const age = daysBetween(life.hatchedOn, day);
    const gap = age < 365 ? chance.whole(28, 40) : age < 900 ? chance.whole(42, 62) : chance.whole(55, 95);
    day = addDays(day, gap);
    // A sign without its shed would make every animal be in shed on the day the demo is loaded.
    if (day > quietUntil) break;
  }
  if (life.story === 'in-blue') {
    shed(addDays(life.until, -5), { stage: 'dull' });
    shed(addDays(life.until, -2), { stage: 'blue' });
  }
  if (life.story === 'bad-shed') {
    shed(addDays(life.until, -11), { stage: 'blue' });
    shed(addDays(life.until, -2), { stage: 'shed', complete: false, eyeCaps: false });
  }
  return records;
}

function weightRecords(life: Life, mass: (day: string) => number, chance: Chance): NewRecord[] {
  const records: NewRecord[] = [];
  const settled = addDays(life.until, -chance.whole(2, 24));
  const last = settled < life.from ? life.from : settled;
  const isYoung = daysBetween(life.hatchedOn, life.until) < 500;
  for (let day = life.from; ; day = addDays(day, isYoung ? chance.whole(24, 33) : chance.whole(38, 60))) {
    const on = day > last ? last : day;
    const noise = on === life.hatchedOn ? 1 : chance.between(0.985, 1.015);
    if (on >= life.from) records.push({ kind: 'weight', on, body: { massG: Math.round(mass(on) * noise) } });
    if (on === last) break;
  }
  return records;
}

function mealRecords(
  life: Life,
  mass: (day: string) => number,
  sheds: readonly NewRecord[],
  chance: Chance,
): NewRecord[] {
  const records: NewRecord[] = [];
  const firstShed = sheds[0]?.on ?? life.from;
  let day = life.from === life.hatchedOn ? addDays(firstShed, 7) : addDays(life.from, chance.whole(0, 6));
  for (let offers = 0; day < life.until; offers++) {
    const massG = mass(day);
    const plan = PLANS.find((candidate) => massG < candidate.belowG)!;
    const inShed = sheds.some(
      (shed) =>
        shed.kind === 'shed' &&
        shed.body.stage !== 'shed' &&
        daysBetween(shed.on, day) >= 0 &&
        daysBetween(shed.on, day) < 7,
    );
    records.push({
      kind: 'feeding',
      on: day,
      body: {
        species: 'rat',
        size: sizeFor(massG * plan.share),
        state: offers < 2 && life.from === life.hatchedOn ? 'live' : 'frozen-thawed',
        taken: takes(life, day, offers, inShed, chance),
      },
    });
    day = addDays(day, plan.every);
  }
  return records;
}

function takes(life: Life, day: string, offers: number, inShed: boolean, chance: Chance): boolean {
  const daysLeft = daysBetween(day, life.until);
  if (life.fastingDays > 0 && daysLeft <= life.fastingDays) return false;
  if (life.story === 'moved-too-early' && daysLeft <= 23) return false;
  // A shy feeder on a good run: refused for weeks, and has eaten ever since.
  if (life.story === 'shy') return daysLeft <= 42 || offers % 3 === 2;
  if (life.story === 'bold' || life.story === 'too-big') return true;
  if (inShed) return chance.isTrue(0.3);
  return chance.isTrue(offers < 2 ? 0.8 : 0.95);
}
