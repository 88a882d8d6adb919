import type { ProjectSummary, ProjectView, RoutePlanInput } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { ago } from './days.ts';
import { NOBODY } from './one-clutch.ts';
import { createdBy, fieldsOf, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { allOf } from './wholes.ts';

/* Projects: what is to be bred, by which route, and what came of it. */

let app: TestApp;
let owner: TestClient;
let dam: string;
let sire: string;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
  dam = await make.animal('D', 'female', 'het clown');
  sire = await make.animal('S', 'male', 'het clown');
});

const make = maker(() => owner, ago);
const created = createdBy(() => owner);
const projectOf = async (id: string): Promise<ProjectView> =>
  (await owner.get(`/projects/${id}`)).body as ProjectView;
const projects = (): Promise<ProjectSummary[]> =>
  allOf<ProjectSummary>((path) => owner.get(path), '/projects');
const begin = (more: object = {}): Promise<string> =>
  make.created('/projects', { name: 'Clown', targets: ['Clown'], animalIds: [dam, sire], ...more });
const season = Number(ago(90).slice(0, 4));

/** A clutch of the pair, its young identified as given. @returns their ids */
async function hatch(dayLaid: number, genes: readonly (string | null)[]): Promise<string[]> {
  const { pairingId } = await created<{ pairingId: string }>('/season/introductions', {
    damId: dam,
    sireId: sire,
    on: ago(dayLaid + 40),
  });
  const laid = { pairingId, laidOn: ago(dayLaid), eggs: genes.length };
  const clutchId = await make.created('/clutches', laid);
  const out = await owner.post(
    `/clutches/${clutchId}/hatchlings`,
    { hatchedOn: ago(dayLaid - 60), hatched: genes.length },
    { 'If-Match': '"1"' },
  );
  expect(out.status, JSON.stringify(out.body)).toBeLessThan(300);
  const { ids } = out.body as { ids: string[] };
  for (const [i, text] of genes.entries())
    if (text !== null)
      await make.created(`/animals/${ids[i]}/records`, {
        kind: 'identification',
        on: ago(dayLaid - 70),
        body: { genes: text, sure: 'certain', by: 'Ida' },
      });
  return ids;
}

const planOf = (more: Partial<RoutePlanInput> = {}): RoutePlanInput => ({
  target: 'Clown',
  holdBack: 2,
  bought: null,
  route: {
    roughYears: 4,
    steps: [
      {
        dam: { kind: 'owned', animalId: dam },
        sire: { kind: 'owned', animalId: sire },
        keep: { sex: 'female', phenotype: { clown: 'Clown' }, label: 'Clown' },
        perEgg: 0.125,
        inbreeding: 0,
      },
      {
        dam: { kind: 'held-back', step: 0 },
        sire: { kind: 'owned', animalId: sire },
        keep: null,
        perEgg: 0.5,
        inbreeding: 0.25,
      },
    ],
  },
  ...more,
});

describe('a project', () => {
  test('begins with animals, is changed as it was read, and goes', async () => {
    const id = await begin({ note: 'For the long run' });
    const made = await projectOf(id);
    expect(made).toMatchObject({ name: 'Clown', targets: ['Clown'], note: 'For the long run', animals: 2 });
    expect(made.projectAnimals.map(({ animal, chances }) => [animal.number, chances])).toEqual([
      ['D', [0]],
      ['S', [0]],
    ]);
    const change = { name: 'Clown project', targets: ['Clown', 'Clown Pastel'], endedOn: null };
    const match = { 'If-Match': '"1"' };
    expect((await owner.put(`/projects/${id}`, change, match)).status).toBe(200);
    expect((await owner.put(`/projects/${id}`, change, match)).status).toBe(412);
    expect((await projectOf(id)).targets).toEqual(['Clown', 'Clown Pastel']);
    expect((await owner.delete(`/projects/${id}`, { 'If-Match': '"1"' })).status).toBe(412);
    expect((await owner.delete(`/projects/${id}`, { 'If-Match': '"2"' })).status).toBe(204);
    expect(await projects()).toEqual([]);
  });

  test('what cannot be read or is not there is refused, by field', async () => {
    const refused = async (body: object): Promise<string[]> =>
      fieldsOf(await owner.post('/projects', { name: 'P', targets: ['Clown'], ...body })).map(
        (problem) => problem.split(':')[0]!,
      );
    expect(await refused({ name: '', targets: [] })).toEqual(['name', 'targets']);
    expect(await refused({ targets: ['Clown', 'Nosuchgene'] })).toEqual(['targets.1']);
    expect(await refused({ animalIds: [NOBODY] })).toEqual(['animalIds.0']);
    const turned = planOf().route.steps.toReversed();
    expect(await refused({ plan: planOf({ route: { roughYears: 1, steps: turned } }) })).toEqual([
      'plan.route.steps',
    ]);
    const [first, last] = planOf().route.steps;
    const wrongSex = [{ ...first!, dam: { kind: 'owned', animalId: sire } }, last];
    expect(await refused({ plan: { ...planOf(), route: { roughYears: 1, steps: wrongSex } } })).toEqual([
      'plan.route.steps.0.dam.animalId',
    ]);
    await begin();
    expect(await refused({ name: 'Clown' })).toEqual(['name']);
    const viewer = await app.newCollection('Seen', 'viewer');
    expect((await viewer.post('/projects', { name: 'P', targets: ['Clown'] })).status).toBe(403);
  });

  test('an animal is in it once, with the reason said last; a pairing is planned once', async () => {
    const id = await begin({ animalIds: [] });
    const path = `/projects/${id}/animals`;
    const first = await make.created(path, { animalId: dam, reason: 'Best pattern' });
    expect(await make.created(path, { animalId: dam, reason: 'Calm' })).toBe(first);
    expect((await projectOf(id)).projectAnimals).toMatchObject([{ id: first, reason: 'Calm', step: null }]);
    expect(fieldsOf(await owner.post(path, { animalId: dam, step: 0 }))[0]).toContain('step');
    const plan = { season: season + 1, damId: dam, sireId: sire };
    const planned = await make.created(`/projects/${id}/pairings`, plan);
    expect(await make.created(`/projects/${id}/pairings`, plan)).toBe(planned);
    expect(fieldsOf(await owner.post(`/projects/${id}/pairings`, { ...plan, damId: sire }))[0]).toContain(
      'damId',
    );
    expect((await projectOf(id)).pairings).toMatchObject([{ plannedId: planned, pairingId: null }]);
    expect((await owner.delete(`/planned-pairings/${planned}`)).status).toBe(204);
    expect((await owner.delete(`/planned-pairings/${planned}`)).status).toBe(404);
    expect((await owner.delete(`/project-animals/${first}`)).status).toBe(204);
    expect(await projectOf(id)).toMatchObject({ pairings: [], projectAnimals: [] });
  });
});

describe('what came of it', () => {
  test('is held against the odds before the young were looked at, once all of a clutch are known', async () => {
    const id = await begin();
    const young = await hatch(200, ['Clown', 'Clown', 'Normal', null]);
    let view = await projectOf(id);
    expect(view.pairings).toMatchObject([
      { plannedId: null, clutches: [{ outcomes: [{ young: 4, hits: 2, open: 1 }] }] },
    ]);
    expect(view.pairings[0]!.clutches[0]!.outcomes[0]!.expected).toBeCloseTo(1, 9);
    expect(view.luck).toEqual([null]);
    await make.created(`/animals/${young[3]}/records`, {
      kind: 'identification',
      on: ago(130),
      body: { genes: 'Normal', sure: 'certain', by: 'Ida' },
    });
    view = await projectOf(id);
    // Binomial, n = 4, p = 1/4: 1 - 0.3164 - 0.4219 (any table).
    expect(view.luck[0]).toMatchObject({ young: 4, hits: 2 });
    expect(view.luck[0]!.atLeast).toBeCloseTo(0.2617, 4);
  });

  test('parents that were uncertain count as they did before: the outcome itself does not raise its own odds', async () => {
    dam = await make.animal('P', 'female', '50% het clown');
    const id = await begin();
    await hatch(200, ['Clown', 'Normal']);
    // Half of such dams carry: 0.5 * 2 * 0.25 expected, though she is proven now.
    expect((await projectOf(id)).luck[0]!.expected).toBeCloseTo(0.25, 9);
  });
});

describe('a plan', () => {
  test('goes on from what was held back, and another one begins anew', async () => {
    const id = await begin({ plan: planOf() });
    const [young] = await hatch(200, ['Clown']);
    const path = `/projects/${id}/animals`;
    await make.created(path, { animalId: young, reason: 'The first', step: 0 });
    expect(fieldsOf(await owner.post(path, { animalId: young, step: 1 }))[0]).toContain('step');
    const held = async (): Promise<(number | null)[]> =>
      (await projectOf(id)).projectAnimals.map(({ step }) => step);
    expect(await held()).toEqual([0, null, null]);
    const { plan, version } = await projectOf(id);
    const { chosenOn, ...same } = plan!;
    expect(chosenOn).toBe(ago(0));
    const body = { name: 'Clown', targets: ['Clown'], endedOn: null };
    const match = (v: number) => ({ 'If-Match': `"${v}"` });
    expect((await owner.put(`/projects/${id}`, { ...body, plan: same }, match(version))).status).toBe(200);
    expect(await held()).toEqual([0, null, null]);
    const other = planOf({ holdBack: 3 });
    expect((await owner.put(`/projects/${id}`, { ...body, plan: other }, match(version + 1))).status).toBe(
      200,
    );
    expect(await held()).toEqual([null, null, null]);
  });

  test('two projects that want the same animal know of one another; an ended one wants none', async () => {
    const first = await begin({ plan: planOf(), animalIds: [] });
    // A route brings the animals that it uses.
    expect((await projectOf(first)).projectAnimals.map(({ animal }) => animal.number)).toEqual(['D', 'S']);
    const second = await make.created('/projects', { name: 'Other', targets: ['Clown'] });
    expect((await projectOf(first)).shared).toEqual([]);
    await make.created(`/projects/${second}/pairings`, { season: season + 1, damId: dam, sireId: sire });
    const { shared, others } = await projectOf(first);
    expect(shared.map(({ number, projectIds }) => [number, projectIds])).toEqual([
      ['D', [first, second]],
      ['S', [first, second]],
    ]);
    expect(others).toEqual([{ id: second, name: 'Other' }]);
    const end = { name: 'Other', targets: ['Clown'], endedOn: ago(0) };
    expect((await owner.put(`/projects/${second}`, end, { 'If-Match': '"1"' })).status).toBe(200);
    expect((await projects()).map(({ name, shared: with_ }) => [name, with_.length])).toEqual([
      ['Clown', 0],
      ['Other', 0],
    ]);
  });

  test('an animal that is deleted leaves its projects, and comes back into those that are still there', async () => {
    const spare = await make.animal('X', 'female', 'Normal');
    const ids = [await begin({ animalIds: [spare] }), await begin({ name: 'Second', animalIds: [spare] })];
    for (const id of ids)
      await make.created(`/projects/${id}/pairings`, { season, damId: spare, sireId: sire });
    const gone = await owner.post(`/animals/${spare}/delete`, { reason: 'Entered twice' });
    expect(gone.status, JSON.stringify(gone.body)).toBe(201);
    expect(await projectOf(ids[0]!)).toMatchObject({ projectAnimals: [], pairings: [] });
    expect((await owner.delete(`/projects/${ids[1]}`, { 'If-Match': '"1"' })).status).toBe(204);
    expect((await owner.post(`/bin/${(gone.body as { id: string }).id}/restore`)).status).toBe(201);
    expect(await projectOf(ids[0]!)).toMatchObject({
      projectAnimals: [{ animal: { number: 'X' } }],
      pairings: [{ dam: { number: 'X' } }],
    });
  });
});
