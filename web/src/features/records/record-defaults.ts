import type { MealPreset, NewRecord, RecordBodies, RecordKind, StartSchool } from '@karyotome/contract';
import { canonicalLabel, parseGenes, PREY_SIZES, type CareAct, type Catalogue } from '@karyotome/core';
import { farmToday, oddsWords } from '../../format/format.ts';

export const KIND_WORDS: Readonly<Record<RecordKind, string>> = {
  weight: 'Weight',
  feeding: 'Meal',
  shed: 'Shed',
  sex: 'Sex',
  identification: 'Identification',
  move: 'Move',
  plan: 'Feeding plan',
  care: 'Care',
  'own-way': 'Its own way',
  note: 'Private note',
};

export const CARE_WORDS: Readonly<Record<CareAct, string>> = {
  'not-offered': 'Passed over',
  cleaned: 'Tub cleaned',
  'caps-checked': 'Eye caps checked: both off',
  soaked: 'Soaked',
  pushing: 'Pushes at its tub',
  regurgitated: 'Regurgitated',
};

/** What an animal has of its own, in one line. */
export function ownWayWords({
  everyDays,
  share,
  species,
  stayUntilG,
  planId,
}: RecordBodies['own-way']): string {
  const parts = [
    ...(everyDays ? [`fed every ${everyDays} days`] : []),
    ...(share ? [`meals of ${Math.round(share * 1000) / 10}% of its weight`] : []),
    ...(species ? [species === 'rat' ? 'rats' : 'mice'] : []),
    ...(planId ? ['a plan of its own'] : []),
    ...(stayUntilG ? [`stays in its tub up to ${stayUntilG} g`] : []),
  ];
  return parts.length > 0 ? parts.join(', ') : 'as the rules say';
}

export const SCHOOL_WORDS: Readonly<Record<StartSchool, string>> = {
  'live-pinkies': 'Live rat pinkies first, then frozen',
  'frozen-first': 'Frozen-thawed from the first offer',
  'small-mice': 'Small live mice first, then rats',
};

/** An identification in one line: what, how sure, by whom, with what odds, and why against them. */
export function identificationWords(
  { genes, sure, by, odds, override, tells }: RecordBodies['identification'],
  catalogue: Catalogue,
): string {
  const seen = Object.keys(tells ?? {}).length;
  return [
    `${canonicalLabel(parseGenes(genes, catalogue), catalogue)}, ${sure}, by ${by}`,
    ...(seen > 0 ? [`${seen} ${seen === 1 ? 'tell' : 'tells'} looked for`] : []),
    ...(odds ? [`${oddsWords(odds.p)} by the odds`] : []),
    ...(override ? [`against the odds: ${override}`] : []),
  ].join(', ');
}

/** What a meal's form begins with. */
export type Prey = Pick<MealPreset, 'species' | 'size' | 'preyG'> & Partial<MealPreset>;

/** An empty record of a kind, as its form begins. */
export function emptyRecord(kind: RecordKind, by: string, prey?: Prey | null): NewRecord {
  const bodies: { [K in RecordKind]: RecordBodies[K] } = {
    weight: { massG: null as never },
    feeding: {
      species: prey?.species ?? 'rat',
      size: prey?.size ?? 'pup',
      preyG: null,
      state: prey?.state ?? 'frozen-thawed',
      taken: true,
      step: prey?.step ?? null,
      light: null,
    },
    shed: { stage: 'shed', complete: true, eyeCaps: true },
    sex: { sex: null as never, method: 'popped', sure: 'certain', by },
    identification: { genes: '', sure: 'certain', by, override: null },
    move: { toTubId: null, reason: '' },
    plan: { school: 'frozen-first', firstMealOn: farmToday() },
    care: { act: 'cleaned' },
    'own-way': { planId: null, everyDays: null, share: null, species: null, stayUntilG: null },
    note: { text: '' },
  };
  return { kind, on: farmToday(), body: bodies[kind], note: null } as NewRecord;
}

/** What is sent: a shed sign says nothing of completeness yet. */
export function readyToSend(record: NewRecord): NewRecord {
  if (record.kind !== 'shed' || record.body.stage === 'shed') return record;
  return { ...record, body: { stage: record.body.stage } };
}

/** The prey sizes of a species, smallest first. */
export function sizesOf(species: string): string[] {
  const sizes = PREY_SIZES.filter((prey) => prey.species === species).map((prey) => prey.size);
  return sizes.length > 0 ? sizes : ['small', 'medium', 'large'];
}
