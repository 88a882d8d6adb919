import type { MealPreset, NewRecord, RecordBodies, RecordKind } from '@karyotome/contract';
import {
  addDays,
  canonicalLabel,
  parseGenes,
  PREY_SIZES,
  QUARANTINE_DAYS,
  type Catalogue,
} from '@karyotome/core';
import { farmToday, oddsWords } from '../../format/format.ts';

/** An identification in one line: what, how sure, by whom, with what odds, and why against them. */
export function identificationWords(
  { genes, sure, by, odds, override, markers }: RecordBodies['identification'],
  catalogue: Catalogue,
): string {
  const seen = Object.keys(markers ?? {}).length;
  return [
    `${canonicalLabel(parseGenes(genes, catalogue), catalogue)}, ${sure}, by ${by}`,
    ...(seen > 0 ? [`${seen} ${seen === 1 ? 'marker' : 'markers'} looked for`] : []),
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
    plan: { protocol: 'frozen-first', firstMealOn: farmToday() },
    care: { act: 'cleaned' },
    'own-way': { planId: null, everyDays: null, share: null, species: null, stayUntilG: null },
    'health-check': { signs: [], words: null },
    'vet-visit': { veterinarian: '', words: '', nextOn: null },
    treatment: {
      what: '',
      dose: '',
      orderedBy: '',
      from: farmToday(),
      everyDays: 1,
      timesADay: 1,
      doses: null,
      weighEveryDays: null,
    },
    dose: { courseId: '', ordinal: 1, isGiven: true },
    'treatment-end': { courseId: '', reason: '' },
    quarantine: { until: addDays(farmToday(), QUARANTINE_DAYS), reason: 'new' },
    'post-mortem': { by: '', words: '' },
    acquisition: { from: '', how: 'bought', price: null, currency: null, papers: null },
    loan: { direction: 'out', partner: '', until: null, terms: null },
    'loan-end': { remark: null },
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
