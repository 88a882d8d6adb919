import type { Page } from '@playwright/test';
import type { RunningServer } from './server.ts';
import { exampleIds, getJson, getList } from './test.ts';

const PLACES = [
  '/today',
  '/today/feeding',
  '/today/sheds',
  '/today/health',
  '/today/plans',
  '/rounds',
  '/racks/climate',
  '/racks/forecast',
  '/racks/moves',
  '/season',
  '/season/planner',
  '/season/projects',
  '/season/incubators',
  '/season/past',
  '/bench',
  '/bench/calls',
  '/racks',
  '/racks/ladders',
  '/animals',
  '/animals/import',
  '/animals/take-in',
  '/animals/contradictions',
  '/showcase',
  '/showcase/sales',
  '/showcase/waiting',
  '/showcase/letters',
  '/showcase/inbox',
  '/showcase/people',
  '/c/thistlecote-burrow',
  '/c/thistlecote-burrow/inquiry',
  '/verify',
  '/genes',
  '/settings',
  '/settings/people',
  '/settings/bin',
  '/settings/account',
  '/settings/history',
  '/start',
  '/join',
  '/reset',
  '/nowhere',
];

/** Every place of the application that a demo farm shows something at, and the pages for everybody. */
export async function allPlaces(page: Page, demo: RunningServer): Promise<string[]> {
  const { animalId, slug, clutchId } = await exampleIds(page, demo);
  const pairings = await getList<{
    clutches: { id: string; hatchedOn: string | null; identified: number; hatched: number }[];
  }>(page, demo, '/pairings');
  const waiting = pairings
    .flatMap(({ clutches }) => clutches)
    .find(({ hatchedOn, hatched }) => hatchedOn !== null && hatched === 8)!;
  const [project] = await getList<{ id: string }>(page, demo, '/projects');
  const bench = await getJson<{ hatchlings: { id: string }[] }>(page, demo, `/clutches/${waiting.id}/bench`);
  const one = bench.hatchlings[0]!.id;
  return [
    ...PLACES,
    `/season/projects/${project!.id}`,
    `/season/clutches/${clutchId}`,
    `/bench/${waiting.id}`,
    `/bench/${waiting.id}?one=${one}`,
    `/animals/${animalId}`,
    `/animals/${animalId}/kin`,
    `/showcase/desk/${waiting.id}`,
    `/p/${slug}`,
    `/p/${slug}/statements/1`,
  ];
}
