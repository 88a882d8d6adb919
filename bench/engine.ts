/*
 * npm run bench:engine: what the inference engine does in a second, against limits it is meant to keep and against programs
 * that others wrote. Compare the ratios within one run; absolute times depend on the machine.
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  createEstimator,
  infer,
  KinshipTable,
  pairingOutcomes,
  parseGenes,
  parseParent,
  PedigreeEngine,
  targetOdds,
  type Pedigree,
} from '@karyotome/core';
import bayesjs from 'bayesjs';
import { toBayesNetwork } from '../core/test/bayes-network.ts';
import { looplessPedigree, writeLinkageFiles } from '../core/test/linkage.ts';
import { ROOT } from '../scripts/root.mjs';
import { generatePedigree } from './generated-pedigree.ts';
import { ms, summarise } from './report.ts';

const SEEDS = 20;

const rows: string[] = [];
const missed: string[] = [];
function say(question: string, measured: string, ratio: string, keeps: boolean | null): void {
  if (keeps === false) missed.push(question);
  rows.push(`| ${question} | ${measured} | ${ratio} | ${keeps === null ? '' : keeps ? 'kept' : 'MISSED'} |`);
  console.log(rows.at(-1));
}

function median(runs: number, act: (run: number) => void): number {
  act(0);
  return summarise(
    Array.from({ length: runs }, (_, run) => {
      const start = performance.now();
      act(run + 1);
      return performance.now() - start;
    }),
  ).median;
}

/** The fastest of so many runs of each act, run in turn. */
function fastestOf(runs: number, acts: readonly (() => void)[]): number[] {
  const fastest = acts.map(() => Infinity);
  for (let run = 0; run < runs; run++) {
    acts.forEach((act, n) => {
      const start = performance.now();
      act();
      fastest[n] = Math.min(fastest[n]!, performance.now() - start);
    });
  }
  return fastest;
}

function wholeCollection(): void {
  const pedigree = generatePedigree({ animals: 10_000, loci: 60 });
  const half = generatePedigree({ animals: 5_000, loci: 60 });
  let widest = 0;
  const whole = median(5, () => (widest = new PedigreeEngine(pedigree).widest));
  // In turn, and the fastest of each: what disturbs the machine disturbs both.
  const doubling = fastestOf(15, [() => new PedigreeEngine(half), () => new PedigreeEngine(pedigree)]);
  const times = doubling[1]! / doubling[0]!;
  const peak = process.memoryUsage().rss / 2 ** 20;
  say('every animal and locus, 10,000 animals x 60 loci', ms(whole), 'under 3 s', whole < 3000);
  say(
    'twice the animals (5,000 to 10,000), fastest of fifteen in turn',
    `${ms(doubling[0]!)} to ${ms(doubling[1]!)}`,
    `${times.toFixed(2)} times, at most 2.3`,
    times <= 2.3,
  );
  say('widest table', `${widest} entries`, 'exact', null);
  say('memory of the process after it', `${peak.toFixed(0)} MiB`, 'under 1024', peak < 1024);
}

/** A new hatchling's identification, and one gene looked at again, at full size. */
function oneRecord(): void {
  const all = generatePedigree({ animals: 10_050, loci: 60 });
  let now: Pedigree = { ...all, animals: all.animals.slice(0, 10_000) };
  const engine = new PedigreeEngine(now);
  const whole = median(1, () => new PedigreeEngine(now));
  const added = median(40, (run) => {
    now = { ...now, animals: [...now.animals, all.animals[10_000 + run]!] };
    engine.update(now);
  });
  const seenAgain = median(40, (run) => {
    const at = 600 + run * 230;
    const animal = now.animals[at]!;
    const calls = (animal.calls ?? []).map((call, n) =>
      n === (run * 7) % 60 ? { ...call, error: call.error ? 0 : 0.1 } : call,
    );
    now = { ...now, animals: now.animals.with(at, { ...animal, calls }) };
    engine.update(now);
  });
  say(
    'one new animal with its identification',
    ms(added),
    `${(whole / added).toFixed(0)} times faster than anew; under 100 ms`,
    added < 100,
  );
  say(
    'one gene of one animal called anew',
    ms(seenAgain),
    `${(whole / seenAgain).toFixed(0)} times faster than anew; under 100 ms`,
    seenAgain < 100,
  );
}

function tangled(): void {
  // Few founders, relatives bred to relatives, and most of the young never looked at.
  for (const animals of [300, 1_000, 3_000]) {
    const pedigree = generatePedigree({
      animals,
      loci: 60,
      founders: 2.5,
      lineBreeding: 1,
      identified: 0.22,
      seed: 9,
    });
    const engine = new PedigreeEngine(pedigree);
    const spent = median(3, () => new PedigreeEngine(pedigree));
    say(
      `a tangled line of ${animals.toLocaleString('en')} animals x 60 loci, widest table ${engine.widest}`,
      ms(spent),
      'exact, under 1 s',
      engine.exact && spent < 1000,
    );
  }
}

/** Collections of twenty seeds with several possible sires: how many are exact, and how long the slowest takes. */
function manySires(): void {
  const shares = [
    { of: '10% of the clutches by two or three males', twoSires: 0.1, thirdSire: 0.3, storedSperm: 0 },
    { of: '40% of the clutches by two or three males', twoSires: 0.4, thirdSire: 0.3, storedSperm: 0 },
    { of: '2% by sperm of the season before', twoSires: 0.03, thirdSire: 0, storedSperm: 0.02 },
  ];
  for (const animals of [1_000, 3_000, 10_000]) {
    for (const { of, ...sires } of shares) {
      const spent: number[] = [];
      let exact = 0;
      let error = 0;
      for (let seed = 1; seed <= SEEDS; seed++) {
        const pedigree = generatePedigree({ animals, loci: 60, seed, ...sires });
        const start = performance.now();
        const engine = new PedigreeEngine(pedigree, createEstimator());
        spent.push(performance.now() - start);
        if (engine.exact) exact++;
        else error = Math.max(error, largestError(engine));
      }
      const { median: middle } = summarise(spent);
      const slowest = Math.max(...spent);
      const errors = exact < SEEDS ? `; largest standard error ${error.toFixed(4)}` : '';
      say(
        `${animals.toLocaleString('en')} animals x 60 loci, ${of}, ${SEEDS} seeds`,
        `${ms(middle)}, slowest ${ms(slowest)}`,
        `exact: ${exact} of ${SEEDS}${errors}; 99%, under 3 s`,
        exact >= 0.99 * SEEDS && slowest < 3000,
      );
    }
  }
}

function largestError(engine: PedigreeEngine): number {
  let most = 0;
  for (let i = 0; i < engine.index.size; i++)
    for (let l = 0; l < engine.pedigree.loci.length; l++)
      for (const error of engine.standardError(i, l) ?? []) most = Math.max(most, error);
  return most;
}

function odds(): void {
  const sire = parseParent(
    'pastel enchi leopard fire banana 66% het clown het pied mojave spider cinnamon het lavender het ultramel',
    'male',
  ).parent;
  const dam = parseParent(
    'pastel enchi leopard fire banana het clown 50% het pied mojave pinstripe cinnamon het lavender het ultramel',
    'female',
  ).parent;
  const target = parseGenes('super pastel clown');
  const spent = median(60, () => {
    pairingOutcomes(sire, dam, 50);
    targetOdds(sire, dam, target, 6);
  });
  say(
    'a pair with 13 segregating loci: first 50 outcomes, total, target',
    ms(spent),
    'under 20 ms',
    spent < 20,
  );
}

function kinship(): void {
  const pedigree = generatePedigree({ animals: 5_000, loci: 1 });
  const spent = median(3, () => new KinshipTable(pedigree));
  say('kinship of all pairs of 5,000 animals', ms(spent), 'under 5 s', spent < 5000);
}

function againstFastlink(): void {
  const linkage = looplessPedigree(959, 5, 0.05);
  const ours = median(20, () => infer(linkage.pedigree));
  const folder = mkdtempSync(join(tmpdir(), 'linkage-'));
  writeLinkageFiles(folder, linkage, true);
  const run = (program: string): Buffer => execFileSync(program, { cwd: folder, stdio: 'pipe' });
  const theirs = median(5, () => [run('unknown'), run('mlink')]);
  rmSync(folder, { recursive: true });
  say(
    'likelihood and all posteriors of 959 animals',
    ms(ours),
    `fastlink ${ms(theirs)}, start-up included: ${(theirs / ours).toFixed(1)} times`,
    ours < theirs,
  );
}

function againstBayesjs(): void {
  const { pedigree } = looplessPedigree(240, 7, 0.05);
  const [ours] = fastestOf(60, [() => infer(pedigree)]) as [number];
  const { network, given } = toBayesNetwork(pedigree);
  const start = performance.now();
  const found = bayesjs.inferAll(network, given, { precision: 15 });
  const theirs = performance.now() - start;
  const posterior = infer(pedigree).animals;
  let worst = 0;
  for (const { id } of pedigree.animals) {
    for (const [state, p] of Object.entries(found[id]!)) {
      const own =
        posterior
          .get(id)!
          .get('c')!
          .find(({ genotype }) => genotype.join('') === state)?.p ?? 0;
      worst = Math.max(worst, Math.abs(own - p));
    }
  }
  say(
    'posteriors of 240 animals at one locus, fastest of 60',
    ms(ours),
    `bayesjs ${(theirs / 1000).toFixed(0)} s: ${Math.round(theirs / ours).toLocaleString('en')} times; largest difference ${worst.toExponential(1)}`,
    theirs / ours > 10_000 && worst < 1e-12,
  );
}

console.log('| question | median | ratio or limit | |\n| --- | --- | --- | --- |');
wholeCollection();
oneRecord();
tangled();
manySires();
odds();
kinship();
againstFastlink();
againstBayesjs();
mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
writeFileSync(
  join(ROOT, 'bench/results/engine.md'),
  `# The engine, last measured\n\nGenerated by \`npm run bench:engine\`; never edited by hand. Compare ratios, not times. The collection is made by \`bench/generated-pedigree.ts\`.\n\n| question | median | ratio or limit | |\n| --- | --- | --- | --- |\n${rows.join('\n')}\n`,
);
if (missed.length > 0) {
  console.error(`Missed: ${missed.join('; ')}`);
  process.exitCode = 1;
}
