import type { NewRecord, RecordBodies, RecordKind, StartSchool } from '@karyotome/contract';
import { canonicalLabel, parseGenes, PREY_SIZES, type Catalogue } from '@karyotome/core';
import { localToday, oddsWords } from '../../format/format.ts';

export const KIND_WORDS: Readonly<Record<RecordKind, string>> = {
  weight: 'Weight',
  feeding: 'Meal',
  shed: 'Shed',
  sex: 'Sex',
  identification: 'Identification',
  move: 'Move',
  plan: 'Feeding plan',
  note: 'Private note',
};

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

/** An empty record of a kind, as its form begins. */
export function emptyRecord(
  kind: RecordKind,
  by: string,
  prey?: { species: 'rat' | 'mouse'; size: string; preyG: number } | null,
): NewRecord {
  const bodies: { [K in RecordKind]: RecordBodies[K] } = {
    weight: { massG: null as never },
    feeding: {
      species: prey?.species ?? 'rat',
      size: prey?.size ?? 'pup',
      preyG: null,
      state: 'frozen-thawed',
      taken: true,
    },
    shed: { stage: 'shed', complete: true, eyeCaps: true },
    sex: { sex: null as never, method: 'popped', sure: 'certain', by },
    identification: { genes: '', sure: 'certain', by, override: null },
    move: { toTubId: null, reason: '' },
    plan: { school: 'frozen-first', firstMealOn: localToday() },
    note: { text: '' },
  };
  return { kind, on: localToday(), body: bodies[kind], note: null } as NewRecord;
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
