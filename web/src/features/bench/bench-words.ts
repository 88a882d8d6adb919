import type { BenchView, ComparisonView, HatchlingView } from '@karyotome/contract';
import type {
  Catalogue,
  CatalogueMarker,
  ParentNews,
  Ranking,
  Observation,
  VisibleOutcome,
  Zone,
} from '@karyotome/core';
import { addDays } from '@karyotome/core';
import { oddsWords, sexWords } from '../../format/format.ts';

/** What an exact test of the clutch against its pairing says, in plain words. */
export function fitWords(p: number): string {
  if (p === 0) return 'As recorded, the pair cannot give this.';
  const chance = `Some gene is at least so far from its odds in ${p === 1 ? 'nearly every' : `${oddsWords(p)} of`} such clutch${p === 1 ? '' : 'es'} (exact test of each gene, for as many genes as there are).`;
  if (p > 0.05) return `${chance} Luck, not news.`;
  return `${chance} Recheck the identifications, the sire, and what the parents carry.`;
}

/** "nine of nine show it: two copies, 99.8% (33.3% before)" */
export function newsWords({ label, copies, pBefore, p, showing, looked }: ParentNews): string {
  const seen = looked > 0 && copies > 0 ? `${showing} of ${looked} show it: ` : '';
  return `${label}: ${seen}${oddsWords(p)}, ${oddsWords(pBefore)} before this clutch`;
}

/** The genes that a clutch can show, as `phenotype`, from what any of its young can be. */
export function genesInPlay(hatchlings: readonly Pick<HatchlingView, 'hypotheses'>[]): Set<string> {
  const alleles = new Set<string>();
  for (const { hypotheses } of hatchlings)
    for (const { loci } of hypotheses)
      for (const { genotypes } of loci)
        for (const { genotype } of genotypes)
          for (const allele of genotype) if (allele !== '+') alleles.add(allele);
  return alleles;
}

/** The markers worth looking for in a clutch: those of genes that it can show, by zone. */
export function markersInPlay(catalogue: Catalogue, genes: ReadonlySet<string>): CatalogueMarker[] {
  return catalogue.markers.filter(({ phenotypes }) =>
    phenotypes.some((text) => text.split('/').every((one) => genes.has(one))),
  );
}

export const markersOf = (markers: readonly CatalogueMarker[], zone: Zone): CatalogueMarker[] =>
  markers.filter((marker) => marker.zone === zone);

/** Whose marker it is: "Gravel, Spark". */
export function ownersWords({ phenotypes, isOfCarriers }: CatalogueMarker, catalogue: Catalogue): string {
  const names = phenotypes.map((text) => {
    const [first, second] = text.split('/');
    const name = catalogue.alleleName(first!);
    if (second === undefined) return name;
    return first === second ? `two copies of ${name}` : `${name} with ${catalogue.alleleName(second)}`;
  });
  return `${isOfCarriers ? 'at times, carriers of ' : ''}${[...new Set(names)].join(', ')}`;
}

/** What the pair alone gives of a look, over all that it carries unseen. */
export function pairChance(
  outcomes: readonly VisibleOutcome[],
  phenotype: Readonly<Record<string, string>>,
): number {
  const keys = Object.keys(phenotype);
  const found = outcomes.find(({ appearance }) => {
    const shown = Object.entries(appearance).filter(([, text]) => text !== '');
    return shown.length === keys.length && shown.every(([locus, text]) => phenotype[locus] === text);
  });
  return found?.p ?? 0;
}

export const lastShedOf = ({
  records,
  hatchedOn,
}: Pick<HatchlingView, 'records' | 'hatchedOn'>): string | null => {
  const shed = records.find(
    (record) => record.voided === null && record.kind === 'shed' && record.body.stage === 'shed',
  );
  // The first shed comes about eight days after hatching.
  return shed?.on ?? (hatchedOn ? addDays(hatchedOn, 8) : null);
};

/** The identification that counts, if there is one. */
export function identificationOf({ records }: Pick<HatchlingView, 'records'>) {
  const record = records.find(({ kind, voided }) => kind === 'identification' && voided === null);
  return record?.kind === 'identification' ? record : null;
}

/** What is left to do with one on the bench, in the order of the work. */
export function stillToDo(one: HatchlingView): string[] {
  return [
    ...(one.identified ? [] : ['identify']),
    ...(one.sex === 'unknown' ? ['sex'] : []),
    ...(one.massG === null ? ['weigh'] : []),
    ...(one.pictureIds.length === 0 ? ['picture'] : []),
    ...(one.printedLabel === null || one.printedLabel.isOutOfDate ? ['label'] : []),
    ...(one.tub === null ? ['tub'] : []),
  ];
}

/** Genes of the leading candidate that the others do not have: what a look could still turn on. */
export const leaderOf = (ranking: Ranking | null | undefined): Ranking['candidates'][number] | null =>
  ranking?.candidates[0] ?? null;

/** Chances of the sires over those identified or not, for a clutch with several. */
export const sireTable = ({ sires, hatchlings }: Pick<BenchView, 'sires' | 'hatchlings'>) =>
  sires.length < 2
    ? []
    : hatchlings.map((one) => ({
        number: one.number,
        odds: sires.map((sire) => one.sires.find(({ id }) => id === sire.id)?.p ?? 0),
      }));

/** Something recorded, and whom it would pull out of the rest. */
export interface Pull {
  readonly words: string;
  readonly ids: ReadonlySet<string>;
}

/** What a clutch can be pulled apart by: markers seen and not seen, sex, what is not identified; only where it parts them. */
export function pullsOf(
  hatchlings: readonly HatchlingView[],
  observationsOf: (one: HatchlingView) => Readonly<Record<string, Observation>>,
): Pull[] {
  const found = new Map<string, Set<string>>();
  const add = (words: string, id: string): void => {
    found.set(words, (found.get(words) ?? new Set()).add(id));
  };
  for (const one of hatchlings) {
    for (const [marker, state] of Object.entries(observationsOf(one)))
      add(state === 'seen' ? marker : `not ${marker}`, one.id);
    add(sexWords(one.sex), one.id);
    if (!one.identified) add('not identified', one.id);
    if (one.isTwin) add('twin', one.id);
  }
  return [...found]
    .filter(([, ids]) => ids.size < hatchlings.length)
    .map(([words, ids]) => ({ words, ids }))
    .toSorted((a, b) => (a.words < b.words ? -1 : 1));
}

/** Why an animal is offered to compare with: "This pair, 2025", "Pastel alone". */
export const comparisonWords = ({ ofPair, phenotypeLabel }: ComparisonView): string =>
  ofPair ? `This pair, ${ofPair.year ?? 'earlier'}` : `${phenotypeLabel} alone`;
