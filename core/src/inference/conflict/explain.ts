import { logSumExp } from '../../numeric/log-sum-exp.ts';
import type { Pedigree } from '../../pedigree/document.ts';
import { kinByDistance, withAncestors } from '../../pedigree/kin.ts';
import { PedigreeEngine } from '../engine.ts';
import { doubting } from './doubting.ts';
import { HOW_OFTEN, hypothesesOf, supposing, type Hypothesis } from './hypotheses.ts';

export interface Explanation extends Hypothesis {
  /** How much of all explanations' weight this one has; they add up to 1. */
  readonly share: number;
}

/** Relatives beyond these are left out: they say little, and cost time. */
const NEAREST = 250;

/**
 * Ranks what may have gone wrong: each hypothesis' weight is how often such a thing happens, times the probability of all
 * the records of the relatives, at all loci, were it so. So a wrong sire must also fit what the clutch shows at other loci,
 * and a founder that carries more must fit its other young.
 *
 * @param loci - those at which the records clash
 * @param animals - a smallest set whose calls cannot hold together
 * @returns those that make the records possible, the weightiest first
 * @example explainConflict(parsePedigree({ format: 'karyotome-pedigree/1', loci: [], animals: [{ id: 'F1', sex: 'female' }] }), [], ['F1']) // [{"kind": "identification", "animals": ["F1"], "alleles": [], "share": 1}]
 */
export function explainConflict(
  pedigree: Pedigree,
  loci: readonly string[],
  animals: readonly string[],
): Explanation[] {
  const near = nearby(pedigree, animals);
  // Loci that clash for reasons of their own would hide every answer.
  const unsound = new Set(
    new PedigreeEngine(near).clashes.flatMap((clash) => clash.loci).filter((locus) => !loci.includes(locus)),
  );
  const sound = { ...near, loci: near.loci.filter((locus) => !unsound.has(locus.id)) };
  const all = hypothesesOf(sound, loci, animals);
  const weighed = bySlips(sound, loci, all);
  const total = logSumExp(weighed.map(({ log }) => log));
  return weighed
    .map(({ hypothesis, log }) => ({ ...hypothesis, share: Math.exp(log - total) }))
    .toSorted((a, b) => b.share - a.share);
}

/** Several slips explain the records better than one only where they are so many times as likely. */
const CLEARLY = 10;

/**
 * One slip alone, with all else taken as right. Where no single one makes everything possible, or several explain it far
 * better (two wrong identifications rather than another sire), the other records are held by their error rate instead.
 */
function bySlips(pedigree: Pedigree, loci: readonly string[], all: readonly Hypothesis[]): Weighed[] {
  const best = (list: readonly Weighed[]): number => Math.max(-Infinity, ...list.map(({ log }) => log));
  const alone = weigh(pedigree, loci, all);
  const open = doubting(pedigree, loci);
  const identifications = all.filter(({ kind }) => kind === 'identification');
  const among = weigh(open, loci, identifications);
  if (alone.length > 0 && best(among) < best(alone) + Math.log(CLEARLY)) return alone;
  const others = all.filter(({ kind }) => kind !== 'identification');
  return [...among, ...weigh(open, loci, others)];
}

interface Weighed {
  readonly hypothesis: Hypothesis;
  readonly log: number;
}

/** The hypotheses that make the records possible, each with the logarithm of its weight. */
function weigh(pedigree: Pedigree, loci: readonly string[], all: readonly Hypothesis[]): Weighed[] {
  // A change of one animal's records touches few loci: one engine takes them up in turn.
  const engine = new PedigreeEngine(pedigree);
  return all.flatMap((hypothesis) => {
    const changed = supposing(pedigree, loci, hypothesis);
    const isOfRecords = hypothesis.kind === 'identification' || hypothesis.kind === 'carries-more';
    if (isOfRecords) engine.update(changed);
    const log = (isOfRecords ? engine : new PedigreeEngine(changed)).logLikelihood;
    return log === null ? [] : [{ hypothesis, log: log + Math.log(HOW_OFTEN[hypothesis.kind]) }];
  });
}

function nearby(pedigree: Pedigree, animals: readonly string[]): Pedigree {
  const distance = new Map<string, number>();
  for (const id of animals) {
    for (const [kin, steps] of kinByDistance(pedigree.animals, id)) {
      distance.set(kin, Math.min(steps, distance.get(kin) ?? Infinity));
    }
  }
  const nearest = [...distance].toSorted((a, b) => a[1] - b[1]).slice(0, NEAREST);
  return {
    ...pedigree,
    animals: withAncestors(
      pedigree.animals,
      nearest.map(([id]) => id),
    ),
  };
}
