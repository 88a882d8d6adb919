import { isGone, type AnimalSummary, type AnimalView, type RecordView } from '@karyotome/contract';
import { inShed, judgeMove, recordGaps, type History } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { claimViews } from '../genetics/claim-views.ts';
import { conflictsNear, excludedOf } from '../genetics/inferred-of-animal.ts';
import { claimsSoon } from '../genetics/stored-claims.ts';
import { projectsOfAnimal } from '../projects/projects.queries.ts';
import { geneticsSoon, type Genetics } from '../genetics/genetics.service.ts';
import { printedLabels } from '../labels/printed-labels.ts';
import { placeAdvice, placesOf } from '../enclosures/placed-advice.ts';
import { pictureViews, recordViews } from './animals.repository.ts';
import { summariesOf } from './animals.service.ts';
import { conflictView } from '../genetics/contradictions.service.ts';
import { statesOf } from '../states/animal-states.ts';
import { keptAnimalWith } from '../states/kept-animals.ts';
import { saleRulesOf } from '../sales/sale-rules.ts';
import { careOf } from './animal-care.ts';
import { parentsOf } from './kin.ts';
import { clutchOfAnimal, openPublication, ownRow } from './animals.queries.ts';

const GENERATIONS = 3;

/** One animal's page: its record, kin, claims with what they rest on, and what is advised. */
export async function viewAnimal(work: Work, id: string): Promise<AnimalView> {
  // Asked together, they are answered without waiting for one another.
  const [[row], genetics, records, states, { rules: saleRules }, pictures, publication] = await Promise.all([
    ownRow(work, { id }),
    geneticsSoon(work),
    recordViews(work, [id]),
    statesOf(work, [id]),
    saleRulesOf(work),
    pictureViews(work, id),
    publicationOf(work, id),
  ]);
  if (!row) throw notFound('This animal');
  const [claims, kept, clutch] = await Promise.all([
    claimsSoon(work, genetics, id),
    keptAnimalWith(work, id, records),
    row.clutchId ? clutchOf(work, row.clutchId) : null,
  ]);
  const conflicts = conflictsNear(genetics, id);
  const kin = kinOf(genetics, id, [
    ...(claims ?? []).flatMap(({ support }) => (support ?? []).map(({ animal }) => animal)),
    ...conflicts.flatMap(({ animals }) => animals),
  ]);
  const byId = new Map((await summariesOf(work, [...kin.all])).map((animal) => [animal.id, animal]));
  const state = states.get(id)!;
  const { history, housing } = kept!;
  const [views, places, care, printed, projects] = await Promise.all([
    claimViews(work, genetics, id, claims ?? [], byId),
    placesOf(work, [id], states),
    careOf(work, kept!, state, saleRules),
    printedLabels(work, genetics, byId, [id]),
    projectsOfAnimal(work, id),
  ]);
  return {
    ...byId.get(id)!,
    note: row.note,
    damId: row.damId,
    sireId: row.sireId,
    records,
    parents: parentsOf(genetics, byId, id, GENERATIONS),
    offspring: offspringViews(kin.offspring, byId),
    clutch,
    isGeneticsPending: genetics.isPending || claims === null,
    claims: views,
    excluded: excludedOf(genetics, id),
    conflicts: conflicts.map((conflict) => conflictView(genetics, conflict, byId)),
    advice: placeAdvice(places, id, state),
    moveOutcomes: moveOutcomes(history, work.today),
    appetite: state.appetite,
    nextMeal: state.meal,
    care,
    inShed: inShed(history.sheds, work.today),
    steps: (housing?.steps ?? []).map((step) => ({ ...step, mealsBefore: step.mealsBefore ?? null })),
    currentStep: housing?.step ?? null,
    pictures,
    lacks: isGone(row) ? [] : [...state.lacks],
    gaps: gapsOf(records, history, pictures.length),
    publication,
    printedLabel: printed.get(id) ?? null,
    projects,
  };
}

/** The young of an animal, and everybody whom its page names. */
function kinOf(
  genetics: Genetics,
  id: string,
  named: readonly string[],
): { offspring: string[]; all: ReadonlySet<string> } {
  const offspring = [...genetics.recorded.keys()].filter((other) => isParentOf(genetics, id, other));
  const all = new Set([id, ...offspring, ...named]);
  const climb = (animalId: string, generations: number): void => {
    const animal = genetics.recorded.get(animalId);
    if (!animal || generations === 0) return;
    for (const parent of [...(animal.dam ? [animal.dam] : []), ...animal.sires.map((sire) => sire.id)]) {
      all.add(parent);
      climb(parent, generations - 1);
    }
  };
  climb(id, GENERATIONS);
  return { offspring, all };
}

const moveOutcomes = (history: History, today: string): AnimalView['moveOutcomes'] =>
  Object.fromEntries(history.moves.map((move) => [move.id, judgeMove(move, history, today)]));

/** By number. */
const offspringViews = (
  offspring: readonly string[],
  byId: ReadonlyMap<string, AnimalSummary>,
): AnimalView['offspring'] =>
  offspring
    .map((id) => byId.get(id)!)
    .toSorted((a, b) => (a.number < b.number ? -1 : 1))
    .map(({ id, number, label, sex }) => ({ id, number, label, sex }));

function isParentOf(genetics: Genetics, parent: string, child: string): boolean {
  const animal = genetics.recorded.get(child);
  return animal?.dam === parent || (animal?.sires ?? []).some((sire) => sire.id === parent);
}

/** @param records - the newest first */
function gapsOf(records: readonly RecordView[], history: History, pictures: number): AnimalView['gaps'] {
  const standing = records.filter(({ voided }) => voided === null);
  const sexed = standing.find((record) => record.kind === 'sex');
  const identified = standing.find((record) => record.kind === 'identification');
  return recordGaps(history, {
    sexSure: sexed?.body.sure ?? null,
    identifiedSure: identified?.body.sure ?? null,
    pictures,
  });
}

async function clutchOf(work: Work, clutchId: string): Promise<AnimalView['clutch']> {
  const [clutch] = await clutchOfAnimal(work, { clutchId });
  return clutch ?? null;
}

async function publicationOf(work: Work, animalId: string): Promise<AnimalView['publication']> {
  const [publication] = await openPublication(work, { animalId });
  return publication ?? null;
}
