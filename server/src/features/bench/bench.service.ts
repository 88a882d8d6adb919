import type {
  AnimalSummary,
  BenchParentView,
  BenchView,
  ComparisonView,
  HatchlingView,
  RecordView,
} from '@karyotome/contract';
import {
  phenotypesByLocus,
  phenotypeLabel,
  pairingCautions,
  parentNews,
  shownBy,
  visibleOutcomes,
  type Parent,
  type Hypothesis,
  type VisibleOutcome,
} from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { recordViews, summaries } from '../../domain/animals/animals.repository.ts';
import { kinView, parentsOf } from '../../domain/animals/kin.ts';
import { clutchSummaries } from '../../domain/season/pairings.service.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';
import { proposeNumbers } from '../../domain/season/clutches.service.ts';
import { conflictView } from '../../domain/genetics/contradictions.service.ts';
import { geneticsOf, type Genetics } from '../../domain/genetics/genetics.service.ts';
import { sireOdds } from '../../domain/genetics/inferred-of-animal.ts';
import { isBlank, parentsBefore, whyPairingCannot } from '../../domain/genetics/identification-check.ts';
import { sexDoubts } from '../../domain/genetics/sex-check.ts';
import { printedLabels } from '../../domain/labels/printed-labels.ts';
import { clutchFit } from './clutch-fit.ts';
import { openLinks, opinionsOn } from './opinions.service.ts';
import { parentageOf, type Parentage } from './parentage.ts';
import { cardPictures, picturesOfAnimals, twinsOf } from './bench.queries.ts';

const OUTCOMES_SHOWN = 200;
/** Animals of one gene alone that are offered to compare with, each gene. */
const SINGLES_SHOWN = 3;

/** One clutch on the table: parents, what the pairing can produce, and each hatchling with what it can be. */
export async function viewBench(work: Work, clutchId: string): Promise<BenchView> {
  const clutch = await findClutch(work, clutchId);
  const genetics = await geneticsOf(work);
  const parentage = await parentageOf(work, clutchId);
  const { damId, sires, mateIds } = parentage;
  const parentIds = [damId, ...sires.map(({ id }) => id)];
  const everybody = await summaries(work, genetics);
  const byId = new Map(everybody.map((animal) => [animal.id, animal]));
  const before = await parentsBefore(genetics, parentIds, mateIds);
  const outcomes = mixOutcomes(
    sires.map(({ id, share }) => ({
      share,
      outcomes: visibleOutcomes(before.get(id)!, before.get(damId)!, OUTCOMES_SHOWN, genetics.catalogue),
    })),
  );
  const identified = mateIds.flatMap((id) => genetics.recorded.get(id)?.identification?.genes ?? []);
  // Of a parent that may carry anything no odds are made.
  const isOpen = parentIds.some((id) => isBlank(genetics, id));
  const priors = isOpen
    ? { of: [], leftOut: [] }
    : await genetics.ask({ ask: 'clutch', family: { dam: damId, sires, mates: mateIds } });
  const pictures = await picturesByAnimal(work);
  const parentView = (role: 'dam' | 'sire', id: string, share: number): BenchParentView => ({
    ...kinView(genetics, byId, role, id, share),
    parents: parentsOf(genetics, byId, id, 1),
    pictureIds: pictures.get(id) ?? [],
    news: newsOf(genetics, before.get(id)!, id, identified),
  });
  const { pairingId: _, ...summary } = (await clutchSummaries(work)).find((row) => row.id === clutchId)!;
  const where = { collectionId: work.actor.collectionId, clutchId };
  const sorting = (await work.models.clutchSortings.findOne({ where, transaction: work.transaction }))?.get();
  const near = new Set([...parentIds, ...mateIds]);
  return {
    clutch: { ...summary, incubationC: clutch.incubationC, note: clutch.note, version: clutch.version },
    dam: parentView('dam', damId, 1),
    sires: sires.map(({ id, share }) => parentView('sire', id, share)),
    outcomes,
    cautions: cautionsOf(genetics, before, parentage),
    hatchlings: await hatchlingsOf(work, genetics, byId, parentage, new Map(priors.of), pictures),
    fit: fitOf(genetics, before, parentage, identified),
    groups: sorting?.groups ?? [],
    sortingVersion: sorting?.version ?? 0,
    comparisons: comparisonsFor(genetics, everybody, parentage, outcomes, pictures),
    conflicts: genetics.posterior.conflicts
      .filter(({ animals }) => animals.some((id) => near.has(id)))
      .map((conflict) => conflictView(genetics, conflict, byId)),
    leftOut: priors.leftOut.map((locus) => genetics.catalogue.locusById(locus)?.name ?? locus),
    cardPictureIds: (await cardPictures(work, { clutchId })).map(({ id }) => id),
    links: await openLinks(work, clutchId),
    nextNumbers: clutch.hatchedOn
      ? []
      : await proposeNumbers(work, clutch, clutch.eggs - (clutch.slugs ?? 0)),
  };
}

type Parents = Awaited<ReturnType<typeof parentsBefore>>;

/** How well what was identified fits what the pair can produce. */
function fitOf(
  { catalogue }: Genetics,
  before: Parents,
  { damId, sires }: Parentage,
  identified: readonly string[],
): BenchView['fit'] {
  const phenotypes = phenotypesByLocus(
    before.get(damId)!,
    sires.map(({ id, share }) => ({ parent: before.get(id)!, share })),
    catalogue,
  );
  return clutchFit(phenotypes, identified, catalogue);
}

function cautionsOf({ catalogue }: Genetics, before: Parents, { damId, sires }: Parentage): string[] {
  return [
    ...new Set(sires.flatMap(({ id }) => pairingCautions(before.get(id)!, before.get(damId)!, catalogue))),
  ];
}

async function hatchlingsOf(
  work: Work,
  genetics: Genetics,
  byId: ReadonlyMap<string, AnimalSummary>,
  { mateIds }: Parentage,
  priors: ReadonlyMap<string, readonly Hypothesis[]>,
  pictures: ReadonlyMap<string, string[]>,
): Promise<HatchlingView[]> {
  const records = await recordViews(work, mateIds);
  const opinions = await opinionsOn(work, mateIds);
  const labels = await printedLabels(work, genetics, byId, mateIds);
  const observed = new Map(
    (
      await work.models.observations.findAll({
        where: { collectionId: work.actor.collectionId, animalId: [...mateIds] },
        transaction: work.transaction,
      })
    ).map((row) => [row.get().animalId, row.get()]),
  );
  const twins = await twinsAmong(work, mateIds);
  return Promise.all(
    mateIds.map(async (id): Promise<HatchlingView> => {
      const own: RecordView[] = records.filter((record) => record.animalId === id);
      const genes = genetics.recorded.get(id)?.identification?.genes;
      return {
        ...byId.get(id)!,
        records: own,
        impossible: genes ? await whyPairingCannot(genetics, id, genes) : [],
        sires: [...sireOdds(genetics, id)].map(([sire, p]) => ({
          id: sire,
          number: byId.get(sire)!.number,
          p,
        })),
        pictureIds: pictures.get(id) ?? [],
        observations: observed.get(id)?.observations ?? {},
        observationsVersion: observed.get(id)?.version ?? 0,
        hypotheses: [...(priors.get(id) ?? [])],
        opinions: opinions.get(id) ?? [],
        printedLabel: labels.get(id) ?? null,
        isTwin: twins.has(id),
        sexDoubts: await sexDoubts(genetics, id),
      };
    }),
  );
}

/** Every animal's pictures, newest first. */
async function picturesByAnimal(work: Work): Promise<Map<string, string[]>> {
  const rows = await picturesOfAnimals(work);
  return new Map(rows.map(({ animalId, ids }) => [animalId, ids]));
}

async function twinsAmong(work: Work, mateIds: readonly string[]): Promise<Set<string>> {
  if (mateIds.length === 0) return new Set();
  const rows = await twinsOf(work, { mateIds });
  return new Set(rows.flatMap(({ ids }) => ids));
}

/** What the clutch's identifications moved in what is known of a parent. */
function newsOf(genetics: Genetics, before: Parent, id: string, identified: readonly string[]) {
  const { catalogue, posterior } = genetics;
  const shown = identified.map((genes) => shownBy(genes, catalogue));
  return parentNews(before.loci, posterior.genotypes(id), shown, catalogue);
}

/** Earlier young of the pair, and animals that show one of its genes and nothing else. */
function comparisonsFor(
  genetics: Genetics,
  everybody: readonly AnimalSummary[],
  { damId, sires, mateIds }: Parentage,
  outcomes: readonly VisibleOutcome[],
  pictures: ReadonlyMap<string, string[]>,
): ComparisonView[] {
  const { catalogue, recorded } = genetics;
  const inPlay = new Set(outcomes.flatMap(({ appearance }) => Object.values(appearance)));
  const counts = new Map<string, number>();
  return everybody.flatMap(({ id, number, label, hatchedOn }): ComparisonView[] => {
    const animal = recorded.get(id);
    if (!animal?.identification || mateIds.includes(id)) return [];
    const view = { id, number, label, pictureIds: pictures.get(id) ?? [] };
    const isOfPair =
      animal.dam === damId && animal.sires.some((sire) => sires.some((one) => one.id === sire.id));
    if (isOfPair) {
      const year = hatchedOn === null ? null : Number(hatchedOn.slice(0, 4));
      return [{ ...view, ofPair: { year }, phenotype: null, phenotypeLabel: null }];
    }
    const shown = Object.entries(shownBy(animal.identification.genes, catalogue));
    const [only] = shown;
    if (shown.length !== 1 || !only || !inPlay.has(only[1])) return [];
    const seen = counts.get(only[1]) ?? 0;
    if (seen >= SINGLES_SHOWN) return [];
    counts.set(only[1], seen + 1);
    const name = phenotypeLabel({ [only[0]]: only[1] }, catalogue);
    return [{ ...view, ofPair: null, phenotype: only[1], phenotypeLabel: name }];
  });
}

/** The outcomes over several candidate sires, by their shares. */
function mixOutcomes(
  candidates: readonly { share: number; outcomes: readonly VisibleOutcome[] }[],
): VisibleOutcome[] {
  if (candidates.length === 1) return [...candidates[0]!.outcomes];
  const byLabel = new Map<string, VisibleOutcome>();
  for (const { share, outcomes } of candidates) {
    for (const outcome of outcomes) {
      const known = byLabel.get(outcome.label);
      byLabel.set(outcome.label, {
        ...outcome,
        // What is carried depends on the sire: with several, the odds of it are left to each hatchling's own page.
        carries: known && known.carries.join() !== outcome.carries.join() ? [] : outcome.carries,
        p: (known?.p ?? 0) + share * outcome.p,
        pMale: (known?.pMale ?? 0) + share * outcome.pMale,
        pFemale: (known?.pFemale ?? 0) + share * outcome.pFemale,
      });
    }
  }
  return [...byLabel.values()].toSorted((a, b) => b.p - a.p || (a.label < b.label ? -1 : 1));
}
