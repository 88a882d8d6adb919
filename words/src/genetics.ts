import type {
  ClaimDetailView,
  ClaimRule,
  ConflictView,
  ContradictionView,
  SupportView,
} from '@karyotome/contract';
import type { Reader } from './reader.ts';

/** By what rule a claim follows from the records it rests on. */
export const CLAIM_RULES: Readonly<Record<ClaimRule, string>> = {
  'whole-family': 'Follows from the records of the whole family, by Mendel’s rules.',
  'offspring-lower-odds':
    'Evidence from offspring: each one that does not show the gene, from a mate that could give it too, lowers the odds.',
  'offspring-show-it': 'Evidence from offspring: what they show, their parents must have given.',
  'stated-on-entry': 'As stated when the animal came in; no relative is recorded.',
  seen: 'Seen on the animal.',
  'certain-parent': 'A parent gives one copy to every offspring, so this one must carry it.',
  'parents-odds': 'Mendelian odds from its parents, given that the gene does not show on it.',
  'seen-and-possible': 'Seen on the animal, and its parents can give it.',
};

type Strengthening = ClaimDetailView['strengthen'][number];

/** What would make a claim surer. */
export function strengtheningWords({ kind, number }: Pick<Strengthening, 'kind' | 'number'>): string {
  switch (kind) {
    case 'second-look':
      return `The same seen again on ${number}, and recorded as certain`;
    case 'sire':
      return `Knowing which of the candidates sired ${number}`;
    case 'parent':
      return `Recording the other parent of ${number}`;
  }
}

/** "Clown Het Pied, certain, by Ida" */
export const supportWords = ({
  label,
  sure,
  by,
}: Pick<SupportView, 'label' | 'sure'> & { by?: string }): string =>
  `${label}, ${sure}${by ? `, by ${by}` : ''}`;

/** Records that cannot all be true. */
export function conflictWords({ locus, locusName, animals }: ConflictView): string {
  const who = animals.map(({ number, label }) => `${number} (${label})`).join(', ');
  const where =
    locus === 'sires'
      ? 'whichever candidate is the sire'
      : locus === 'sex'
        ? 'whatever its sex'
        : `at ${locusName ?? locus}`;
  return animals.length === 1
    ? `${who} cannot be what was recorded ${where}: its recorded family does not allow it.`
    : `What was recorded of ${who} cannot all be true ${where}.`;
}

type Explanation = ContradictionView['explanations'][number];

/** What may have gone wrong. */
export function explanationWords(
  { kind, animals, label, sex, alleles }: Pick<Explanation, 'kind' | 'animals' | 'label' | 'sex' | 'alleles'>,
  reader: Reader,
): string {
  const who = reader.list(animals.map(({ number }) => number));
  switch (kind) {
    case 'identification':
      return `${who} is identified wrongly: not ${label}.`;
    case 'sire':
      return `Another male is the sire of ${who}.`;
    case 'carries-more':
      return `${who} carries ${reader.list(alleles)}, which was not recorded.`;
    case 'sex':
      return `${who} is not ${sex}.`;
    case 'bred-alone':
      return `The dam of ${who} bred without a male: all her young are homozygous for what they got.`;
  }
}

/** How few records have to be looked at again. @param enough - records that together settle the contradictions */
export function lookAgainWords(enough: number, contradictions: number, reader: Reader): string {
  const records = reader.count(enough, 'record', 'records');
  const settled: Readonly<Record<number, string>> = { 1: 'the contradiction', 2: 'both contradictions' };
  const all = settled[contradictions] ?? `all ${reader.number(contradictions)} contradictions`;
  return `${records}, looked at again, ${enough === 1 ? 'is' : 'are'} enough to settle ${all}.`;
}
