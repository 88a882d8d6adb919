import type { RecordBodies, RecordKind } from '@karyotome/contract';
import { canonicalLabel, parseGenes, type CareAct, type Catalogue } from '@karyotome/core';

const START_WORDS: Readonly<Record<RecordBodies['plan']['school'], string>> = {
  'live-pinkies': 'live rat pinkies first',
  'frozen-first': 'frozen-thawed from the first offer',
  'small-mice': 'small live mice first',
};

const CARE_WORDS: Readonly<Record<CareAct, string>> = {
  'not-offered': 'passed over',
  cleaned: 'tub cleaned',
  'caps-checked': 'eye caps checked: both off',
  soaked: 'soaked',
  pushing: 'pushes at its tub',
  regurgitated: 'regurgitated',
};

/** What was identified, without who did it. */
export function identificationWords(
  { genes, sure }: Pick<RecordBodies['identification'], 'genes' | 'sure'>,
  catalogue: Catalogue,
): string {
  return `${canonicalLabel(parseGenes(genes, catalogue), catalogue)}, ${sure}`;
}

/** A record's body in one line of plain words. */
export function recordWords(kind: RecordKind, body: Record<string, unknown>, catalogue: Catalogue): string {
  switch (kind) {
    case 'identification': {
      const identification = body as RecordBodies['identification'];
      return `${identificationWords(identification, catalogue)}, by ${identification.by}`;
    }
    case 'sex': {
      const { sex, method, sure } = body as RecordBodies['sex'];
      return `${sex}, ${method}, ${sure}`;
    }
    case 'weight':
      return `${(body as RecordBodies['weight']).massG} g`;
    case 'feeding': {
      const { species, size, state, taken } = body as RecordBodies['feeding'];
      return `${species} ${size}, ${state}, ${taken ? 'taken' : 'refused'}`;
    }
    case 'shed':
      return `shed sign: ${(body as RecordBodies['shed']).stage}`;
    case 'move':
      return `moved: ${(body as RecordBodies['move']).reason}`;
    case 'plan': {
      const { school, firstMealOn } = body as RecordBodies['plan'];
      return `feeding plan: ${START_WORDS[school]}, first meal ${firstMealOn}`;
    }
    case 'care':
      return CARE_WORDS[(body as RecordBodies['care']).act];
    case 'own-way': {
      const { planId, everyDays, share, species, stayUntilG } = body as RecordBodies['own-way'];
      const parts = [
        planId ? `plan ${planId}` : null,
        everyDays ? `fed every ${everyDays} days` : null,
        share ? `meals of ${Math.round(share * 1000) / 10}%` : null,
        species ?? null,
        stayUntilG ? `stays in its tub up to ${stayUntilG} g` : null,
      ].filter((part) => part !== null);
      return parts.length > 0 ? `its own way: ${parts.join(', ')}` : 'as the rules say';
    }
    case 'note':
      return (body as RecordBodies['note']).text;
  }
}
