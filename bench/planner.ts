/*
 * npm run bench:planner: how fast the planner answers, against the limits it is meant to keep and against the plain way to the
 * same answer. Compare the ratios within one run; absolute times depend on the machine.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  bestMates,
  clutchSize,
  findRoutes,
  parseGenes,
  parseParent,
  planPair,
  ROUTE_TERMS,
  RouteSimulation,
  seededRandom,
  targetOdds,
  toTarget,
  type Fertility,
  type PlannerAnimal,
  type RouteAnimal,
  type Target,
} from '@karyotome/core';
import { ROOT } from '../scripts/root.mjs';
import { ms, time } from './report.ts';

const LIMITS_MS = { typing: 50, ranking: 1000, simulation: 5000 };
const rows: string[] = [];
const missed: string[] = [];
function say(question: string, measured: string, ratio: string, keeps: boolean | null): void {
  if (keeps === false) missed.push(question);
  rows.push(`| ${question} | ${measured} | ${ratio} | ${keeps === null ? '' : keeps ? 'kept' : 'MISSED'} |`);
  console.log(rows.at(-1));
}
const times = (a: number, b: number): string => (a / b).toPrecision(3);

const target = (text: string): Target => toTarget(parseGenes(text));
const fertility: Fertility = { size: clutchSize([]).odds, hatch: 0.9 };
const GENES = [
  'pastel',
  'enchi',
  'mojave',
  'het clown',
  '66% het pied',
  'banana',
  'vanilla',
  '50% het ultramel',
];

/** Animals of mixed genes, the same ones in every run. */
function animals(females: number, males: number): PlannerAnimal[] {
  const die = seededRandom(7);
  return Array.from({ length: females + males }, (_, i) => {
    const sex = i < females ? ('female' as const) : ('male' as const);
    const genes = GENES.filter(() => die() < 0.35).join(' ') || 'normal';
    return { id: `${i}`, sex, parent: parseParent(genes, sex).parent, notReady: [], freeLoad: 5 };
  });
}

async function typing(): Promise<void> {
  const eight = GENES.join(' ');
  const wanted = target('clown pied pastel');
  const ask = (genes: string) => {
    const dam = parseParent(genes, 'female').parent;
    const sire = parseParent(genes, 'male').parent;
    return time(30, () => planPair(sire, dam, wanted, fertility));
  };
  const full = await ask(eight);
  const one = await ask('het clown');
  say(
    'One pair of 8 loci: outcomes, cautions, chances of a target of three',
    `${ms(full.median)} (p95 ${ms(full.p95)})`,
    `${times(full.median, one.median)} × a pair of one locus`,
    full.p95 < LIMITS_MS.typing,
  );
}

async function ranking(): Promise<void> {
  const all = animals(500, 50);
  const text = 'clown pied banana';
  const wanted = target(text);
  const ranked = await time(5, () => bestMates(all, wanted, () => 0, 0.125));
  const parsed = parseGenes(text);
  const few = all.slice(0, 20);
  const males = all.slice(500, 505);
  const plain = await time(5, () =>
    few.forEach((dam) => males.forEach((sire) => targetOdds(sire.parent, dam.parent, parsed))),
  );
  say(
    'Ranking 500 × 50 pairs for a target of three genes',
    ms(ranked.median),
    `${times(plain.median * 250, ranked.median)} × faster than asking pair by pair`,
    ranked.median < LIMITS_MS.ranking,
  );
}

async function routes(): Promise<void> {
  const owned: RouteAnimal[] = animals(40, 20).map((animal) => ({ ...animal, readyIn: 0 }));
  const wanted = target('clown pied ultramel');
  const question = {
    target: wanted,
    animals: owned,
    bought: null,
    kinship: () => 0,
    inbreedingBound: 0.125,
    fertility,
    terms: ROUTE_TERMS,
  };
  const finding = await time(3, () => findRoutes(question));
  const found = findRoutes(question);
  const longest = found.toSorted((a, b) => b.steps.length - a.steps.length)[0]!;
  say(
    'Finding routes to three recessives among 60 animals',
    ms(finding.median),
    `${found.length} routes, the longest of ${longest.steps.length} steps`,
    null,
  );
  const play = (runs: number) => () => {
    const simulation = new RouteSimulation({
      route: longest,
      target: wanted,
      animals: owned,
      bought: null,
      fertilityOf: () => fertility,
      terms: ROUTE_TERMS,
      holdBack: 2,
      years: 10,
      seed: 1,
    });
    simulation.play(runs);
    return simulation.result();
  };
  const whole = await time(3, play(10_000));
  const tenth = await time(3, play(1_000));
  say(
    `10,000 runs of 10 years, a route of ${longest.steps.length} steps`,
    ms(whole.median),
    `${times(whole.median, tenth.median)} × a tenth of the runs`,
    whole.median < LIMITS_MS.simulation,
  );
}

await typing();
await ranking();
await routes();
mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
writeFileSync(
  join(ROOT, 'bench/results/planner.md'),
  [
    '# The planner: one run of `npm run bench:planner`',
    '',
    `Node ${process.version}. Limits: odds while typing under ${LIMITS_MS.typing} ms (p95), ranking under ${LIMITS_MS.ranking} ms, a simulation under ${LIMITS_MS.simulation} ms.`,
    '',
    '| Question | Measured | Ratio | Limit |',
    '| --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n'),
);
if (missed.length > 0) {
  console.error(`Limits missed: ${missed.join(', ')}`);
  process.exitCode = 1;
}
