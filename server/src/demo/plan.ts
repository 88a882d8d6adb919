/*
 * The invented farm: people, places and animals are made up. Days are counted back from the day the demo is loaded, so
 * that it always looks lived in.
 */

export const FARM = {
  collection: 'Thistlecote Burrow',
  owner: 'Maren Thistle',
  email: 'maren@thistlecote.example',
};
export const KEEPER = { name: 'Ilko Fenn', email: 'ilko@thistlecote.example' };

export interface Founder {
  readonly number: string;
  readonly name: string;
  readonly sex: 'female' | 'male';
  /** As stated when it came in. */
  readonly genes: string;
  /** What it carries in truth, beyond what is certain from the words: decides the young, is never recorded. */
  readonly truth?: string;
  readonly ageDays: number;
  readonly adultG: number;
}

export const FOUNDERS: readonly Founder[] = [
  {
    number: 'F-01',
    name: 'Juniper',
    sex: 'female',
    genes: 'Cinnamon YB 66% het Ultramel',
    truth: 'cinnamon yb het ultramel',
    ageDays: 2240,
    adultG: 2050,
  },
  {
    number: 'F-02',
    name: 'Marrow',
    sex: 'female',
    genes: 'Leopard het Desert Ghost',
    ageDays: 2010,
    adultG: 1880,
  },
  {
    number: 'F-03',
    name: 'Sedge',
    sex: 'female',
    genes: 'Gravel or Specter',
    truth: 'gravel',
    ageDays: 1930,
    adultG: 1760,
  },
  { number: 'F-04', name: 'Plover', sex: 'female', genes: 'Mocha het Puzzle', ageDays: 2300, adultG: 2140 },
  {
    number: 'F-05',
    name: 'Quince',
    sex: 'female',
    genes: 'Vanilla 50% het Ultramel',
    truth: 'vanilla',
    ageDays: 1990,
    adultG: 1700,
  },
  {
    number: 'F-06',
    name: 'Teasel',
    sex: 'female',
    genes: 'Normal het Desert Ghost',
    ageDays: 2600,
    adultG: 1960,
  },
  {
    number: 'M-01',
    name: 'Bracken',
    sex: 'male',
    genes: 'Female-Maker Banana het Ultramel',
    ageDays: 1900,
    adultG: 980,
  },
  { number: 'M-02', name: 'Rook', sex: 'male', genes: 'Ultramel Vanilla', ageDays: 2080, adultG: 1050 },
  { number: 'M-03', name: 'Flint', sex: 'male', genes: 'Desert Ghost Leopard', ageDays: 2150, adultG: 1120 },
  { number: 'M-04', name: 'Sorrel', sex: 'male', genes: 'Yellow Belly Puzzle', ageDays: 1870, adultG: 940 },
];

/** Refers to a founder by number, or to a hatchling by clutch and what it must show. */
export type ParentChoice =
  string | { readonly clutch: string; readonly sex: 'female' | 'male'; readonly shows: string };

export interface PlannedClutch {
  readonly id: string;
  readonly dam: ParentChoice;
  /** With their weights; the first is the true sire unless `sireOf` names another by hatchling. */
  readonly sires: readonly { readonly choice: ParentChoice; readonly weight: number }[];
  readonly pairedAgo: number;
  readonly laidAgo: number;
  readonly eggs: number;
  readonly slugs: number;
  /** Null: still in the incubator. */
  readonly hatchedAgo: number | null;
  readonly hatched: number;
  readonly isIdentified: boolean;
  /** Places in the clutch (0 first) sired by the second candidate. */
  readonly bySecond?: readonly number[];
  readonly hasTwins?: boolean;
  /** What became of them, by place in the clutch. */
  readonly fates: readonly (
    'breeder' | 'held-back' | 'for-sale' | 'reserved' | 'sold' | 'died' | 'undecided'
  )[];
}

export const CLUTCHES: readonly PlannedClutch[] = [
  {
    id: 'a',
    dam: 'F-01',
    sires: [{ choice: 'M-02', weight: 1 }],
    pairedAgo: 980,
    laidAgo: 903,
    eggs: 7,
    slugs: 1,
    hatchedAgo: 845,
    hatched: 6,
    isIdentified: true,
    fates: ['breeder', 'breeder', 'held-back', 'sold', 'held-back', 'held-back'],
  },
  {
    id: 'b',
    dam: 'F-02',
    sires: [{ choice: 'M-03', weight: 1 }],
    pairedAgo: 960,
    laidAgo: 884,
    eggs: 6,
    slugs: 0,
    hatchedAgo: 826,
    hatched: 6,
    isIdentified: true,
    fates: ['held-back', 'breeder', 'sold', 'held-back', 'held-back', 'held-back'],
  },
  {
    id: 'c',
    dam: 'F-04',
    sires: [{ choice: 'M-04', weight: 1 }],
    pairedAgo: 945,
    laidAgo: 866,
    eggs: 9,
    slugs: 1,
    hatchedAgo: 809,
    hatched: 7,
    isIdentified: true,
    fates: ['breeder', 'breeder', 'held-back', 'held-back', 'sold', 'held-back', 'held-back'],
  },
  {
    id: 'd',
    dam: 'F-03',
    sires: [{ choice: 'M-04', weight: 1 }],
    pairedAgo: 610,
    laidAgo: 524,
    eggs: 5,
    slugs: 0,
    hatchedAgo: 466,
    hatched: 5,
    isIdentified: true,
    fates: ['held-back', 'held-back', 'for-sale', 'sold', 'held-back'],
  },
  {
    id: 'e',
    dam: 'F-05',
    sires: [{ choice: 'M-01', weight: 1 }],
    pairedAgo: 590,
    laidAgo: 506,
    eggs: 8,
    slugs: 1,
    hatchedAgo: 448,
    hatched: 6,
    isIdentified: true,
    fates: ['held-back', 'for-sale', 'held-back', 'reserved', 'held-back', 'died'],
  },
  {
    id: 'f',
    dam: 'F-06',
    sires: [{ choice: 'M-03', weight: 1 }],
    pairedAgo: 570,
    laidAgo: 488,
    eggs: 7,
    slugs: 1,
    hatchedAgo: 431,
    hatched: 5,
    isIdentified: true,
    fates: ['held-back', 'held-back', 'for-sale', 'held-back', 'held-back'],
  },
  {
    id: 'g',
    dam: 'F-02',
    sires: [
      { choice: 'M-03', weight: 3 },
      { choice: 'M-01', weight: 1 },
    ],
    pairedAgo: 310,
    laidAgo: 232,
    eggs: 7,
    slugs: 0,
    hatchedAgo: 174,
    hatched: 7,
    isIdentified: true,
    bySecond: [1, 4],
    fates: ['undecided', 'held-back', 'undecided', 'undecided', 'undecided', 'held-back', 'undecided'],
  },
  {
    id: 'h',
    dam: 'F-05',
    sires: [{ choice: { clutch: 'a', sex: 'male', shows: 'Ultramel' }, weight: 1 }],
    pairedAgo: 290,
    laidAgo: 208,
    eggs: 6,
    slugs: 0,
    hatchedAgo: 150,
    hatched: 6,
    isIdentified: true,
    fates: ['for-sale', 'for-sale', 'for-sale', 'reserved', 'for-sale', 'for-sale'],
  },
  {
    id: 'i',
    dam: 'F-04',
    sires: [{ choice: { clutch: 'c', sex: 'male', shows: 'Puzzle' }, weight: 1 }],
    pairedAgo: 150,
    laidAgo: 72,
    eggs: 6,
    slugs: 0,
    hatchedAgo: 14,
    hatched: 7,
    isIdentified: false,
    hasTwins: true,
    fates: [],
  },
  {
    id: 'j',
    dam: 'F-01',
    sires: [{ choice: 'M-01', weight: 1 }],
    pairedAgo: 120,
    laidAgo: 40,
    eggs: 8,
    slugs: 1,
    hatchedAgo: null,
    hatched: 0,
    isIdentified: false,
    fates: [],
  },
];

export const RACKS = [
  { name: 'Hatch 1', levels: 6, tubsPerLevel: 5, stepPosition: 0 },
  { name: 'Young 1', levels: 5, tubsPerLevel: 4, stepPosition: 1 },
  { name: 'Grow 1', levels: 5, tubsPerLevel: 5, stepPosition: 2 },
  { name: 'Grow 2', levels: 4, tubsPerLevel: 5, stepPosition: 2 },
  { name: 'Adult 1', levels: 4, tubsPerLevel: 3, stepPosition: 3 },
] as const;
export const ROOM = 'Snake room';

/** Stories told by single animals, by clutch and place: the first is 0. */
export const STORIES: Readonly<
  Record<string, 'shy' | 'in-blue' | 'bad-shed' | 'bold' | 'too-big' | 'moved-too-early'>
> = {
  'f-1': 'shy',
  'g-3': 'in-blue',
  'd-1': 'bad-shed',
  'g-0': 'bold',
  'g-5': 'too-big',
  'h-4': 'moved-too-early',
};
/** Animals that fast through the breeding season, for this many days so far. */
export const FASTING: Readonly<Record<string, number>> = { 'M-03': 74, 'M-04': 52, 'F-08': 48, 'F-09': 44 };

/** Where the eye cannot tell which: what is then recorded instead, by clutch. A double among its young tells later. */
export const LOOK_ALIKE: Readonly<Record<string, { readonly seen: string; readonly recorded: string }>> = {
  d: { seen: 'Gravel', recorded: 'Gravel or Specter' },
};
/** A slip of a tired evening, by clutch and place: a gene that neither parent is recorded with. */
export const SLIPS: Readonly<Record<string, string>> = { 'f-3': 'Pastel' };
/** Young that the story needs to show something their parents can give, by clutch and place. */
export const NEEDED: Readonly<Record<string, string>> = { 'd-2': 'Highway' };
