/*
 * npm run bench:truth: whether probabilities hold, on collections whose truth is known; and how well the explanations of
 * contradictions, and the list of all records to look at again, find wrong records where a known share of them is wrong.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  conflictsOf,
  explainConflict,
  PedigreeEngine,
  seededRandom,
  suspectRecords,
  type Call,
  type ExplainedConflict,
  type Pedigree,
} from '@karyotome/core';
import { ROOT } from '../scripts/root.mjs';
import { calibrate, type Calibration } from './calibration.ts';
import { generatePedigree } from './generated-pedigree.ts';
import { Simulation } from './simulated-collection.ts';
import { ms, summarise } from './report.ts';

const COLLECTIONS = [
  { animals: 200, loci: 20, seeds: 24 },
  { animals: 1000, loci: 20, seeds: 4 },
] as const;
/** Explanations that somebody reads. */
const FIRST = 3;
/** A contradiction with more loci or animals than this is not weighed here: it takes too long. */
const WIDEST = 40;

/** The same collection with a share of its calls replaced by what another animal was called there: `animal locus`. */
function withSlips(
  pedigree: Pedigree,
  share: number,
  seed: number,
): { pedigree: Pedigree; wrong: Set<string> } {
  const random = seededRandom(seed);
  const looks = new Map(
    pedigree.loci.map(({ id }) => [
      id,
      [
        ...new Set(
          pedigree.animals.flatMap(({ calls = [] }) =>
            calls.filter(({ locus }) => locus === id).map(({ is }) => is),
          ),
        ),
      ],
    ]),
  );
  const wrong = new Set<string>();
  const slip = (id: string, call: Call): Call => {
    if (random() >= share) return call;
    const others = looks.get(call.locus)!.filter((is) => is !== call.is);
    if (others.length === 0) return call;
    wrong.add(`${id} ${call.locus}`);
    return { ...call, is: others[Math.floor(random() * others.length)]!, error: 0 };
  };
  const animals = pedigree.animals.map((animal) => ({
    ...animal,
    ...(animal.calls ? { calls: animal.calls.map((call) => slip(animal.id, call)) } : {}),
  }));
  return { pedigree: { ...pedigree, animals }, wrong };
}

interface Found {
  contradictions: number;
  unexplained: number;
  first: number;
  times: number[];
  /** Of each collection: how long its contradictions took to name, for each of them. */
  naming: number[];
  listing: Listing;
}

/** The records to look at again, of all collections together. */
interface Listing {
  times: number[];
  /** Records that are listed as more likely wrong than right, and how many of them are wrong. */
  likely: number;
  likelyWrong: number;
  /** The chances of all listed records, added up, and how many of them are wrong. */
  expected: number;
  wrong: number;
  /** Contradictions before, and once those that would be enough to settle them were looked at again. */
  before: number;
  after: number;
}

function measure(
  { animals: wanted, loci: count, seeds }: (typeof COLLECTIONS)[number],
  share: number,
): Found {
  const listing = { times: [], likely: 0, likelyWrong: 0, expected: 0, wrong: 0, before: 0, after: 0 };
  const found: Found = { contradictions: 0, unexplained: 0, first: 0, times: [], naming: [], listing };
  for (let seed = 1; seed <= seeds; seed++) {
    const right = generatePedigree({ animals: wanted, loci: count, seed });
    const { pedigree, wrong } = withSlips(right, share, seed);
    const engine = new PedigreeEngine(pedigree);
    const begun = performance.now();
    const conflicts = conflictsOf(engine);
    if (conflicts.length > 0) found.naming.push((performance.now() - begun) / conflicts.length);
    const explained: ExplainedConflict[] = [];
    for (const conflict of conflicts) {
      const { locus, loci, animals } = conflict;
      if (locus === 'sires' || locus === 'sex' || animals.length > WIDEST) continue;
      const start = performance.now();
      const explanations = explainConflict(pedigree, loci, animals);
      found.times.push(performance.now() - start);
      explained.push({ conflict, explanations });
      found.contradictions++;
      if (explanations.length === 0) found.unexplained++;
      const named = explanations
        .slice(0, FIRST)
        .filter(({ kind }) => kind === 'identification')
        .flatMap((one) => one.animals);
      if (named.some((id) => wrong.has(`${id} ${locus}`))) found.first++;
    }
    list(found.listing, { engine, explained, wrong, right, share });
  }
  return found;
}

function list(
  listing: Listing,
  {
    engine,
    explained,
    wrong,
    right,
    share,
  }: {
    engine: PedigreeEngine;
    explained: readonly ExplainedConflict[];
    wrong: ReadonlySet<string>;
    right: Pedigree;
    share: number;
  },
): void {
  const start = performance.now();
  const { suspects } = suspectRecords(engine, explained, () => share);
  listing.times.push(performance.now() - start);
  for (const { animal, locus, pWrong } of suspects) {
    const isWrong = wrong.has(`${animal} ${locus}`);
    listing.expected += pWrong;
    if (isWrong) listing.wrong++;
    if (pWrong <= 0.5) continue;
    listing.likely++;
    if (isWrong) listing.likelyWrong++;
  }
  const lookedAt = new Set(suspects.flatMap(({ animal, isEnough }) => (isEnough ? [animal] : [])));
  const animals = engine.pedigree.animals.map((animal, i) =>
    lookedAt.has(animal.id) ? right.animals[i]! : animal,
  );
  listing.before += explained.length;
  listing.after += new PedigreeEngine({ ...engine.pedigree, animals }).clashes.length;
}

const SHARES = [0.002, 0.02, 0.05];
const wrongRecords: string[] = [];
const lookedAtAgain: string[] = [];
for (const collection of COLLECTIONS)
  for (const share of SHARES) {
    const { contradictions, unexplained, first, times, naming, listing } = measure(collection, share);
    const of = `| ${collection.animals} | ${100 * share}%`;
    const percent = (part: number, whole: number): string => `${((100 * part) / whole).toFixed(1)}%`;
    wrongRecords.push(
      `${of} | ${contradictions} | ${unexplained} | ${percent(first, contradictions)} | ${ms(summarise(times).median)} | ${ms(Math.max(...times))} | ${ms(summarise(naming).median)}, at most ${ms(Math.max(...naming))} |`,
    );
    lookedAtAgain.push(
      `${of} | ${listing.likely} | ${percent(listing.likelyWrong, listing.likely)} | ${listing.expected.toFixed(1)} | ${listing.wrong} | ${listing.before} | ${listing.after} | ${ms(summarise(listing.times).median)} | ${ms(Math.max(...listing.times))} |`,
    );
    console.log(wrongRecords.at(-1));
    console.log(lookedAtAgain.at(-1));
  }

const seeds = (count: number): number[] => Array.from({ length: count }, (_, i) => i + 1);
const CALIBRATED = [
  ['all known', 334, (seed: number) => new Simulation(seed, ['all-known']).run(200)],
  [
    'all known, or nothing',
    200,
    (seed: number) => new Simulation(seed, ['all-known', 'nothing-known']).run(50),
  ],
  [
    'all known, or recessive genes unknown',
    200,
    (seed: number) => new Simulation(seed, ['all-known', 'recessives-unknown']).run(50),
  ],
] as const;

function calibrationTable(
  title: string,
  { collections, exact, bins, certain, falseCertain }: Calibration,
): string {
  const count = bins.reduce((sum, bin) => sum + bin.count, 0);
  const text = `### Founders' statements: ${title}

${collections} collections, ${exact} of them exact; ${count} probabilities between 0 and 1. Of ${certain} probabilities of 1, ${falseCertain} are false.

| given | how many | mean | true | standard errors apart |
| --- | --- | --- | --- | --- |
${bins.map(({ from, count: n, meanP, trueShare, z }) => `| ${(100 * from).toFixed(0)} to ${(100 * from + 10).toFixed(0)}% | ${n} | ${(100 * meanP).toFixed(2)}% | ${(100 * trueShare).toFixed(2)}% | ${z.toFixed(1)} |`).join('\n')}
`;
  console.log(text);
  return text;
}
const calibrations = CALIBRATED.map(([title, count, simulate]) =>
  calibrationTable(title, calibrate(seeds(count), simulate)),
);

mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
writeFileSync(
  join(ROOT, 'bench/results/truth.md'),
  `# Wrong records and calibration, last measured

Generated by \`npm run bench:truth\`; never edited by hand.

## Wrong records

Generated collections of ${COLLECTIONS.map(({ animals, loci, seeds: n }) => `${animals} animals and ${loci} loci (${n} of them)`).join(' and of ')}, for each share of all calls replaced by another look. Aim: a wrong
record among the first three explanations of at least 95% of the contradictions at 2%, 85% at 5%; none without an explanation;
median 0.3 s, worst 3 s.

| animals | wrong | contradictions | without an explanation | a wrong record among the first three | median | worst | naming one |
| --- | --- | --- | --- | --- | --- | --- | --- |
${wrongRecords.join('\n')}

## Records to look at again

The whole list of a collection: those listed as more likely wrong than right, and how many of them are; the chances of all
that are listed, added up, against how many of them are wrong (calls that are only probable count with an error of 0.1 and are
no more often wrong here than others); contradictions before, and once the records that are named as
enough were looked at again.

| animals | wrong | likely | of them wrong | expected wrong | wrong | contradictions | afterwards | median | worst |
| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |
${lookedAtAgain.join('\n')}

## Calibration

Collections as breeders keep them, whose truth is known: nine loci of the catalogue, one of them with a double that does not
live, 30% of the clutches by one of two males, a tenth of the young not identified, two fifths of the identifications only
probable or possible and as often wrong. Every probability of a genotype and of a sire, in deciles, with what share of it is
true; the deviation in standard errors between collections.

${calibrations.join('\n')}
A founder whose recessive genes are unknown is taken to carry none until its descendants show one (docs/science.md): its
probabilities of 1 are false as often as such founders carry something all the same.
`,
);
