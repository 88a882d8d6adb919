import { randomUUID } from 'node:crypto';
import type {
  NewProject,
  PlannedPairingInput,
  ProjectAnimalInput,
  ProjectChange,
  RoutePlan,
  RoutePlanInput,
} from '@karyotome/contract';
import { ownedParents } from '@karyotome/core';
import { changeRow, deleteRow, removeRow } from '../../db/change-rows.ts';
import type { ProjectRow } from '../../db/project-rows.ts';
import type { Actor, Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { checkParent } from '../animals/animals.service.ts';
import { catalogueFor, entryInputs } from '../catalogue/catalogue.service.ts';
import { genesProblems } from '../genetics/identification-check.ts';

type Fields = Pick<NewProject, 'name' | 'targets' | 'note' | 'plan'>;

/** @throws Refusal where genes cannot be read, or an animal of the route is not of this collection */
async function checkProject(work: Work, { targets, plan }: Fields): Promise<void> {
  const catalogue = catalogueFor(await entryInputs(work));
  const texts: [field: string, genes: string][] = [
    ...targets.map((genes, i): [string, string] => [`targets.${i}`, genes]),
    ...(plan ? [['plan.target', plan.target] as [string, string]] : []),
    ...(plan?.bought ? [['plan.bought.genes', plan.bought.genes] as [string, string]] : []),
  ];
  const problems = texts.flatMap(([field, genes]) => genesProblems(genes, field, catalogue));
  if (problems.length > 0)
    throw new Refusal('invalid', 'Some words of the genes need a correction.', problems);
  for (const [index, step] of (plan?.route.steps ?? []).entries())
    for (const role of ['dam', 'sire'] as const)
      if (step[role].kind === 'owned')
        await checkParent(work, `plan.route.steps.${index}.${role}.animalId`, step[role].animalId, role);
}

const chosen = (work: Work, plan: RoutePlanInput | null | undefined): RoutePlan | null =>
  plan ? { ...plan, chosenOn: work.today } : null;

export async function createProject(work: Work<Actor>, input: NewProject): Promise<{ id: string }> {
  await checkProject(work, input);
  const { collectionId, accountId: authorId } = work.actor;
  const id = randomUUID();
  const { name, targets } = input;
  await work.models.projects.create(
    {
      collectionId,
      id,
      name,
      targets,
      note: input.note || null,
      plan: chosen(work, input.plan),
      startedOn: work.today,
      endedOn: null,
      authorId,
      version: 1,
    },
    { transaction: work.transaction },
  );
  for (const [index, animalId] of (input.animalIds ?? []).entries())
    await checkAnimal(work, `animalIds.${index}`, animalId);
  await insertAnimals(work, id, [
    ...(input.animalIds ?? []),
    ...ownedParents(input.plan?.route ?? { steps: [] }),
  ]);
  return { id };
}

/** Those that are in it already stay as they are. */
async function insertAnimals(work: Work<Actor>, projectId: string, ids: readonly string[]): Promise<void> {
  const { collectionId } = work.actor;
  const known = await work.models.projectAnimals.findAll({
    where: { collectionId, projectId },
    transaction: work.transaction,
  });
  const there = new Set(known.map((row) => row.get().animalId));
  for (const animalId of new Set(ids))
    if (!there.has(animalId)) await insertAnimal(work, projectId, { animalId });
}

/** With another route than before, its animals come in, and nobody was held back for one of its steps yet. */
export async function changeProject(
  work: Work<Actor>,
  id: string,
  input: ProjectChange,
  version: number,
): Promise<{ id: string; version: number }> {
  await checkProject(work, input);
  const before = await projectOf(work, id);
  const { name, targets, endedOn } = input;
  const isOther = input.plan !== undefined && !isSameRoute(before.plan, input.plan);
  const plan = isOther ? { plan: chosen(work, input.plan) } : {};
  const changed = await changeRow(
    work,
    work.models.projects,
    'This project',
    { id, version },
    { name, targets, endedOn, note: input.note || null, ...plan },
  );
  if (isOther) {
    await work.models.projectAnimals.update(
      { step: null },
      { where: { collectionId: work.actor.collectionId, projectId: id }, transaction: work.transaction },
    );
    await insertAnimals(work, id, ownedParents(input.plan?.route ?? { steps: [] }));
  }
  return changed;
}

const isSameRoute = (a: RoutePlanInput | null, b: RoutePlanInput | null): boolean =>
  routeText(a) === routeText(b);
/** A stored plan has the day of the choice besides, and its keys in another order. */
const routeText = (plan: RoutePlanInput | null): string =>
  JSON.stringify(
    plan && [
      plan.target,
      plan.holdBack,
      plan.bought?.genes,
      plan.bought?.sex,
      plan.route.steps.map(stepText),
    ],
  );
const stepText = ({ dam, sire, keep }: RoutePlanInput['route']['steps'][number]): string =>
  [dam, sire]
    .map((one) => (one.kind === 'owned' ? one.animalId : one.kind === 'bought' ? 'bought' : one.step))
    .concat(keep ? [keep.sex, keep.label] : [])
    .join('|');

export const removeProject = (work: Work, id: string, version: number): Promise<void> =>
  removeRow(work, work.models.projects, 'This project', { id, version });

async function projectOf(work: Work, id: string): Promise<ProjectRow> {
  const row = await work.models.projects.findOne({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This project');
  return row.get();
}

async function checkAnimal(work: Work, field: string, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const count = await work.models.animals.count({
    where: { collectionId, id },
    transaction: work.transaction,
  });
  if (count === 0) throw invalidField(field, 'names no animal of this collection');
}

async function insertAnimal(
  work: Work<Actor>,
  projectId: string,
  { animalId, reason, step }: ProjectAnimalInput,
): Promise<string> {
  const { collectionId, accountId: authorId } = work.actor;
  const id = randomUUID();
  await work.models.projectAnimals.create(
    {
      collectionId,
      id,
      projectId,
      animalId,
      reason: reason || null,
      step: step ?? null,
      addedOn: work.today,
      authorId,
    },
    { transaction: work.transaction },
  );
  return id;
}

/** An animal is in a project once: sent again, its reason and step are as said last. */
export async function addProjectAnimal(
  work: Work<Actor>,
  projectId: string,
  input: ProjectAnimalInput,
): Promise<{ id: string }> {
  const { plan } = await projectOf(work, projectId);
  await checkAnimal(work, 'animalId', input.animalId);
  const { collectionId } = work.actor;
  const { transaction } = work;
  if (input.step != null) {
    if (!plan?.route.steps[input.step]?.keep)
      throw invalidField('step', 'names no step of the plan that young are held back from', 'unknown');
    await work.models.projectAnimals.update(
      { step: null },
      { where: { collectionId, projectId, step: input.step }, transaction },
    );
  }
  const where = { collectionId, projectId, animalId: input.animalId };
  const known = await work.models.projectAnimals.findOne({ where, transaction });
  if (!known) return { id: await insertAnimal(work, projectId, input) };
  await known.update({ reason: input.reason || null, step: input.step ?? null }, { transaction });
  return { id: known.get().id };
}

export const removeProjectAnimal = (work: Work, id: string): Promise<void> =>
  deleteRow(work, work.models.projectAnimals, 'This animal of a project', id);

/** A pairing is planned once for a project and season: sent again, it is the same. */
export async function planPairing(
  work: Work<Actor>,
  projectId: string,
  { season, damId, sireId }: PlannedPairingInput,
): Promise<{ id: string }> {
  await projectOf(work, projectId);
  await checkParent(work, 'damId', damId, 'dam');
  await checkParent(work, 'sireId', sireId, 'sire');
  const { collectionId, accountId: authorId } = work.actor;
  const where = { collectionId, projectId, season, damId, sireId };
  const known = await work.models.plannedPairings.findOne({ where, transaction: work.transaction });
  if (known) return { id: known.get().id };
  const id = randomUUID();
  await work.models.plannedPairings.create({ ...where, id, authorId }, { transaction: work.transaction });
  return { id };
}

export const removePlannedPairing = (work: Work, id: string): Promise<void> =>
  deleteRow(work, work.models.plannedPairings, 'This planned pairing', id);
