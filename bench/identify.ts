/*
 * npm run bench:identify: how fast the bench answers a touch, and takes in fifty pictures, against the limits it is meant to
 * keep. Compare the ratios within one run; absolute times depend on the machine.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  CATALOGUE,
  ClutchPriorReader,
  nextObservations,
  parseParent,
  pairingOutcomes,
  rank,
  type Pedigree,
  type Observations,
  type Hypothesis,
} from '@karyotome/core';
import sharp from 'sharp';
import { ROOT } from '../scripts/root.mjs';
import { makeCopies } from '../server/src/domain/pictures/picture-copies.ts';
import { generatePedigree } from './generated-pedigree.ts';
import { ms, summarise, time } from './report.ts';

const LIMITS_MS = { touch: 50, pictures: 60_000 };
const rows: string[] = [];
const missed: string[] = [];
function say(question: string, measured: string, ratio: string, keeps: boolean | null): void {
  if (keeps === false) missed.push(question);
  rows.push(`| ${question} | ${measured} | ${ratio} | ${keeps === null ? '' : keeps ? 'kept' : 'MISSED'} |`);
  console.log(rows.at(-1));
}

/** Eight segregating loci, two sires, an open sex: four hypotheses for each of ten. */
const DAM = 'pastel enchi yb spotnose het clown';
const SIRES = ['fire orange dream leopard clown male-maker banana', 'super pastel fire het pied clown'];
const SEEN: Observations = {
  'head top: washed out': 'seen',
  'back: bands instead of keyholes': 'not-seen',
  'flanks: flaming': 'seen',
  'lips: two pale spots on the snout': 'not-seen',
  'ground colour: orange': 'seen',
  'back: dark stripe': 'not-seen',
  'flanks: extra dots inside the marks': 'seen',
};

function hypotheses(loci: number): Hypothesis[] {
  const dam = parseParent(DAM, 'female').parent;
  return SIRES.flatMap((text) => {
    const outcomes = pairingOutcomes(parseParent(text, 'male').parent, dam, 100_000).outcomes;
    const ids = [...new Set(outcomes.flatMap(({ genotype }) => Object.keys(genotype)))].slice(0, loci);
    return (['female', 'male'] as const).map((sex): Hypothesis => {
      const share = sex === 'female' ? 'pFemale' : 'pMale';
      return {
        sire: text,
        sex,
        weight: 0.25,
        loci: ids.map((locus) => {
          const byKey = new Map<string, { genotype: readonly [string, string]; p: number }>();
          for (const outcome of outcomes) {
            const genotype = outcome.genotype[locus]!;
            const key = genotype.join('/');
            const known = byKey.get(key) ?? { genotype, p: 0 };
            byKey.set(key, { genotype, p: known.p + 2 * outcome[share] });
          }
          return { locus, genotypes: [...byKey.values()] };
        }),
      };
    });
  });
}

async function touches(): Promise<void> {
  const ask = (what: readonly Hypothesis[]) =>
    time(40, () => nextObservations(rank(what, SEEN, CATALOGUE).space, SEEN, CATALOGUE, null));
  const eight = hypotheses(8);
  // A clutch is ranked when it is opened: by the first touch the worker has done this ten times.
  for (let i = 0; i < 10; i++) nextObservations(rank(eight, SEEN, CATALOGUE).space, SEEN, CATALOGUE, null);
  const full = await ask(eight);
  const two = await ask(hypotheses(2));
  const { ranking } = rank(eight, SEEN, CATALOGUE);
  say(
    `One touch: ranking of ${ranking.candidates.length + ranking.rarer} kinds and where to look next, 8 loci, 2 sires`,
    `${ms(full.median)} (p95 ${ms(full.p95)})`,
    `${(full.median / two.median).toPrecision(3)} × two loci`,
    full.p95 < LIMITS_MS.touch,
  );
  const ten = await time(10, () => {
    for (let i = 0; i < 10; i++) nextObservations(rank(eight, SEEN, CATALOGUE).space, SEEN, CATALOGUE, null);
  });
  say(
    'A clutch of ten ranked anew',
    ms(ten.median),
    `${(ten.median / full.median).toPrecision(3)} × one`,
    null,
  );
}

/** What each of ten clutch-mates can be, in a collection of a thousand: the first time, and after a record. */
function priors(): void {
  const pedigree: Pedigree = generatePedigree({ animals: 1000, loci: 20 });
  const dam = pedigree.animals.find(({ dam: mother }) => mother !== undefined)!;
  const family = {
    dam: dam.dam!,
    sires: dam.sires!.map(({ id }) => ({ id })),
    mates: pedigree.animals
      .filter((one) => one.dam === dam.dam)
      .slice(0, 10)
      .map(({ id }) => id),
  };
  const reader = new ClutchPriorReader();
  const from = performance.now();
  reader.read(pedigree, family);
  const first = performance.now() - from;
  const again: number[] = [];
  for (let i = 0; i < 10; i++) {
    const start = performance.now();
    reader.read(pedigree, family);
    again.push(performance.now() - start);
  }
  const { median } = summarise(again);
  say(
    `What ${family.mates.length} clutch-mates can be, in 1,000 animals × 20 loci`,
    `${ms(first)}, again ${ms(median)}`,
    `${(first / median).toPrecision(3)} × faster again`,
    null,
  );
}

/** Fifty photographs of 12 megapixels, two at a time as the interface sends them. */
async function pictures(): Promise<void> {
  const noise = await sharp({
    create: {
      width: 4000,
      height: 3000,
      channels: 3,
      background: '#a58',
      noise: { type: 'gaussian', mean: 120, sigma: 30 },
    },
  })
    .blur(1.2)
    .jpeg({ quality: 90 })
    .toBuffer();
  const one = await time(3, () => makeCopies(noise));
  let left = 50;
  const hand = async (): Promise<void> => {
    while (left-- > 0) await makeCopies(noise);
  };
  // While they are taken in, the thread that answers requests must stay free.
  const waits: number[] = [];
  let last = performance.now();
  const pulse = setInterval(() => {
    const now = performance.now();
    waits.push(now - last - 10);
    last = now;
  }, 10);
  const from = performance.now();
  await Promise.all([hand(), hand()]);
  const all = performance.now() - from;
  clearInterval(pulse);
  say(
    `50 pictures of 12 megapixels, ${(noise.length / 1e6).toFixed(1)} MB each: upright, two sizes, without metadata`,
    `${(all / 1000).toFixed(1)} s; the server's thread waited ${ms(summarise(waits).p95)} (p95)`,
    `${((50 * one.median) / all).toPrecision(3)} × faster than one after another`,
    all < LIMITS_MS.pictures,
  );
}

await touches();
priors();
await pictures();
mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
writeFileSync(
  join(ROOT, 'bench/results/identify.md'),
  `# The bench: one run of \`npm run bench:identify\`\n\nNode ${process.version}. Limits: a touch under ${LIMITS_MS.touch} ms (p95), fifty pictures under ${LIMITS_MS.pictures / 1000} s on two cores.\n\n| Question | Measured | Ratio | Limit |\n| --- | --- | --- | --- |\n${rows.join('\n')}\n`,
);
if (missed.length > 0) {
  console.error(`Missed: ${missed.join('; ')}`);
  process.exitCode = 1;
}
