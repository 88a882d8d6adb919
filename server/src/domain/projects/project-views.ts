import type { AnimalSummary, ProjectPairing, ProjectSummary, ProjectView } from '@karyotome/contract';
import { ownedParents, remainingRoute, seasonOf, sharedAnimals } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { groupBy } from '../../group-by.ts';
import { notFound } from '../../refusal.ts';
import { summariesOf } from '../animals/animals.service.ts';
import { kinView } from '../animals/kin.ts';
import { geneticsOf, type Genetics } from '../genetics/genetics.service.ts';
import { rulesOf } from '../season/season-rules.ts';
import { chancesOf, luckOverAll, outcomeOf, targetsOf, type PairingOutcome } from './outcomes.ts';
import {
  madePairings,
  plannedRows,
  projectAnimalRows,
  projectRows,
  type MadeRow,
  type PlannedRow,
  type ProjectAnimalOf,
} from './projects.queries.ts';

type Base = Omit<ProjectSummary, 'shared' | 'animals'>;

/** Who was held back from which step of a project's plan. */
const heldBack = (animals: readonly ProjectAnimalOf[]): Map<number, string> =>
  new Map(animals.flatMap(({ step, animalId }) => (step === null ? [] : [[step, animalId] as const])));

/** Who a project needs now: for what is left of its plan, and for pairings of this season or a later one. */
function wantedBy(
  { plan, endedOn }: Base,
  own: readonly ProjectAnimalOf[],
  planned: readonly PlannedRow[],
  season: number,
): string[] {
  if (endedOn !== null) return [];
  const ofPlan = plan ? ownedParents(remainingRoute(plan.route, heldBack(own)).route) : [];
  const ofSeason = planned
    .filter((one) => one.season >= season)
    .flatMap(({ damId, sireId }) => [damId, sireId]);
  return [...ofPlan, ...ofSeason];
}

export const listProjects = async (work: Work): Promise<ProjectSummary[]> =>
  (await readProjects(work)).projects;

/** All projects, since they share animals, with the rows that each is made of. */
async function readProjects(work: Work): Promise<{
  projects: ProjectSummary[];
  animals: ReadonlyMap<string, readonly ProjectAnimalOf[]>;
  planned: ReadonlyMap<string, readonly PlannedRow[]>;
}> {
  const rows = await projectRows(work);
  if (rows.length === 0) return { projects: [], animals: new Map(), planned: new Map() };
  const animals = groupBy(await projectAnimalRows(work), ({ projectId }) => projectId);
  const planned = groupBy(await plannedRows(work), ({ projectId }) => projectId);
  const season = seasonOf(work.today, (await rulesOf(work)).rules);
  const wants = rows.map((row) => ({
    projectId: row.id,
    animalIds: wantedBy(row, animals.get(row.id) ?? [], planned.get(row.id) ?? [], season),
  }));
  const shared = sharedAnimals(wants);
  const named = await summariesOf(
    work,
    shared.map(({ animalId }) => animalId),
  );
  // Who was deleted meanwhile still stands in a plan.
  const known = shared.flatMap((one) => {
    const animal = named.find(({ id }) => id === one.animalId);
    return animal ? [{ ...one, number: animal.number, sex: animal.sex }] : [];
  });
  const projects = rows.map((row) => ({
    ...row,
    animals: animals.get(row.id)?.length ?? 0,
    shared: known.filter(({ projectIds }) => projectIds.includes(row.id)),
  }));
  return { projects, animals, planned };
}

export async function viewProject(work: Work, id: string): Promise<ProjectView> {
  const { projects, animals, planned: plans } = await readProjects(work);
  const project = projects.find((one) => one.id === id);
  if (!project) throw notFound('This project');
  const genetics = await geneticsOf(work);
  const targets = targetsOf(genetics, project.targets);
  const own = animals.get(id) ?? [];
  const planned = plans.get(id) ?? [];
  const made = await madePairings(work, id);
  const outcomes = await Promise.all(made.map((one) => outcomeOf(genetics, one, targets)));
  const involved = [
    ...own.map(({ animalId }) => animalId),
    ...planned.flatMap(({ damId, sireId }) => [damId, sireId]),
    ...made.flatMap(({ damId, sires }) => [damId, ...sires.map((sire) => sire.id)]),
  ];
  const byId = new Map((await summariesOf(work, [...new Set(involved)])).map((one) => [one.id, one]));
  const sharing = new Set(project.shared.flatMap(({ projectIds }) => projectIds));
  return {
    ...project,
    projectAnimals: own.map(({ animalId, projectId: _, ...row }) => ({
      ...row,
      animal: byId.get(animalId)!,
      chances: chancesOf(genetics, animalId, targets),
    })),
    pairings: pairingsOf(genetics, byId, made, outcomes, planned),
    luck: luckOverAll(outcomes, targets),
    others: projects
      .filter((one) => one.id !== id && sharing.has(one.id))
      .map((one) => ({ id: one.id, name: one.name })),
  };
}

/** Those that were made, and those that are planned and were not: the newest season first. */
function pairingsOf(
  genetics: Genetics,
  byId: ReadonlyMap<string, AnimalSummary>,
  made: readonly MadeRow[],
  outcomes: readonly PairingOutcome[],
  planned: readonly PlannedRow[],
): ProjectPairing[] {
  const isOf = (plan: PlannedRow, { season, damId, sires }: MadeRow): boolean =>
    plan.season === season && plan.damId === damId && sires.some(({ id }) => id === plan.sireId);
  const parents = (damId: string, sires: readonly string[]) => ({
    dam: kinView(genetics, byId, 'dam', damId),
    sires: sires.map((sire) => kinView(genetics, byId, 'sire', sire)),
  });
  const done = made.map((pairing, i): ProjectPairing => ({
    plannedId: planned.find((plan) => isOf(plan, pairing))?.id ?? null,
    pairingId: pairing.id,
    season: pairing.season,
    ...parents(
      pairing.damId,
      pairing.sires.map(({ id }) => id),
    ),
    clutches: pairing.clutches.map(({ young: _, ...clutch }) => ({
      id: clutch.id,
      name: clutch.name,
      laidOn: clutch.laidOn,
      hatchedOn: clutch.hatchedOn,
      eggs: clutch.eggs,
      hatched: clutch.hatched,
      outcomes: outcomes[i]!.ofClutch.get(clutch.id) ?? [],
    })),
  }));
  const open = planned
    .filter((plan) => !made.some((pairing) => isOf(plan, pairing)))
    .map((plan): ProjectPairing => ({
      plannedId: plan.id,
      pairingId: null,
      season: plan.season,
      ...parents(plan.damId, [plan.sireId]),
      clutches: [],
    }));
  return [...open, ...done].toSorted((a, b) => b.season - a.season);
}
