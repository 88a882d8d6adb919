import { daysBetween } from '../calendar/days.ts';
import type { WeightRecord } from '../husbandry/history.ts';
import { coordinateDescent } from '../numeric/minimise.ts';
import { bendCurve, curveAt, type CurveSex, type GrowthCurve } from './curve.ts';
import { observe, predict, type Dynamics, type State } from './kalman.ts';
import { prepare, type GrowthSubject, type Prepared } from './prepare.ts';

/** What the collection says about growth, before anything is known of one animal. */
export interface CollectionGrowth {
  readonly curves: Readonly<Record<CurveSex, GrowthCurve>>;
  readonly dynamics: Dynamics;
  /** Variance of one weighing, of the logarithm. */
  readonly noise: number;
  /** Variance between animals at hatching, of the logarithm. */
  readonly spread: number;
  /** Clutch id -> how its young differ from the curve. */
  readonly clutches: ReadonlyMap<string, { readonly off: number; readonly variance: number }>;
}

/* Of a weighing: the logarithm of mass varies by some 2.5% with bowels and bladder. Common practice, no source; fitted. */
const NOISE = 0.025 ** 2;
const SPREAD = 0.15 ** 2;
const DYNAMICS: Dynamics = { levelVariance: 2e-5, rateVariance: 0.0011 ** 2, rateHalfLife: 60 };
/** So many standard deviations from what was expected: is it the right animal? */
export const OUTLIER_Z = 3.5;

interface Path {
  readonly state: State;
  readonly day: number;
}

/** What is expected before the first weight. */
export function begin({ subject, born, stages }: Prepared, collection: CollectionGrowth): Path {
  const clutch = subject.clutchId === null ? undefined : collection.clutches.get(subject.clutchId);
  const day = stages[0]?.day ?? born;
  // One that was first weighed grown has had its whole life to differ from the curve.
  const age = Math.max(0, day - born);
  const state: State = {
    level: clutch?.off ?? 0,
    rate: 0,
    vLevel: (clutch?.variance ?? collection.spread) + Math.min(age, 730) * 1e-4,
    vRate: collection.dynamics.rateVariance,
    cov: 0,
  };
  return { state, day };
}

export interface Walk {
  readonly logLikelihood: number;
  /** For each weight: what was expected of it, in standard deviations off. */
  readonly steps: readonly { readonly weight: WeightRecord; readonly z: number; readonly path: Path }[];
}

/** Takes in one weight after the other. */
export function walk(prepared: Prepared, collection: CollectionGrowth): Walk {
  let path = begin(prepared, collection);
  let logLikelihood = 0;
  const steps: { weight: WeightRecord; z: number; path: Path }[] = [];
  for (const { weight, day, span, interruption, y, mealVariance } of prepared.stages) {
    const { shift, variance } = interruption;
    const ahead = predict(path.state, span, collection.dynamics, shift, variance);
    const plain = observe(ahead, y, collection.noise + mealVariance);
    const z = plain.innovation / Math.sqrt(plain.variance);
    // A weight far off, a slip or another animal's, must not drag the curve after it.
    const taken = Math.abs(z) > OUTLIER_Z ? observe(ahead, y, plain.innovation ** 2) : plain;
    logLikelihood += taken.logLikelihood;
    path = { state: taken.state, day };
    steps.push({ weight, z, path });
  }
  return { logLikelihood, steps };
}

/**
 * What the animals of a collection have in common: a curve for each sex, how far clutches and animals stray from it, and
 * how noisy a weighing is. The variances are those under which the collection's weights are likeliest.
 *
 * Cost: some hundred passes over all weights.
 *
 * @example fitCollection([]).clutches.size // 0
 */
export function fitCollection(subjects: readonly GrowthSubject[], fitted = true): CollectionGrowth {
  const weighed = subjects.filter(({ weights }) => weights.length > 0);
  const points = (sex: CurveSex) =>
    weighed
      .filter((subject) => subject.hatchedOn !== null && (sex === 'unknown' || subject.sex === sex))
      .map(({ hatchedOn, weights }) =>
        weights.map(({ on, massG }) => ({ age: daysBetween(hatchedOn!, on), massG })),
      );
  const curves = {
    female: bendCurve('female', points('female')),
    male: bendCurve('male', points('male')),
    unknown: bendCurve('unknown', points('unknown')),
  };
  const start: CollectionGrowth = {
    curves,
    dynamics: DYNAMICS,
    noise: NOISE,
    spread: SPREAD,
    clutches: new Map(),
  };
  const tuned = fitted && weighed.length >= MIN_ANIMALS ? tune(sample(weighed), start) : start;
  return { ...tuned, clutches: clutchEffects(weighed, tuned) };
}

/** Fewer animals say too little about variances: the usual ones stand. */
const MIN_ANIMALS = 5;
/** So many animals settle the variances; more would only take time. */
const SAMPLE = 60;

function sample(subjects: readonly GrowthSubject[]): GrowthSubject[] {
  const every = Math.max(1, Math.ceil(subjects.length / SAMPLE));
  return subjects.filter((_, i) => i % every === 0);
}

function tune(subjects: readonly GrowthSubject[], start: CollectionGrowth): CollectionGrowth {
  const at = ([level, rate, noise]: readonly number[]): CollectionGrowth => ({
    ...start,
    dynamics: {
      ...DYNAMICS,
      levelVariance: Math.exp(level!),
      rateVariance: Math.exp(rate!),
    },
    noise: Math.exp(noise!),
  });
  const usual = [DYNAMICS.levelVariance, DYNAMICS.rateVariance, NOISE].map(Math.log);
  const prepared = subjects.map((subject) => prepare(subject, start.curves[subject.sex])!);
  const cost = (x: readonly number[]): number => {
    const collection = at(x);
    let sum = 0;
    for (const one of prepared) sum -= walk(one, collection).logLikelihood;
    // A weak pull to the usual values (e-fold, one standard deviation 1.5) keeps a small collection sane.
    return sum + x.reduce((pull, value, i) => pull + 0.5 * ((value - usual[i]!) / 1.5) ** 2, 0);
  };
  return at(coordinateDescent(cost, usual, 2.5, { rounds: 5, tolerance: 0.05 }));
}

/**
 * How the young of one clutch differ from the curve: their mean, drawn towards none the more, the fewer they are (the best
 * linear unbiased prediction of a random effect; Robinson 1991, Statistical Science 6, 15-32).
 */
function clutchEffects(
  subjects: readonly GrowthSubject[],
  collection: CollectionGrowth,
): Map<string, { off: number; variance: number }> {
  const within = collection.spread / 2;
  const between = collection.spread / 2;
  const offs = new Map<string, number[]>();
  for (const subject of subjects) {
    const first = subject.weights[0]!;
    if (subject.clutchId === null || subject.hatchedOn === null) continue;
    const age = daysBetween(subject.hatchedOn, first.on);
    if (age > 120) continue;
    const off = Math.log(first.massG) - curveAt(collection.curves[subject.sex], age);
    offs.set(subject.clutchId, [...(offs.get(subject.clutchId) ?? []), off]);
  }
  return new Map(
    [...offs].map(([id, values]) => {
      const noise = within + collection.noise;
      const weight = between / (between + noise / values.length);
      const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
      return [id, { off: weight * mean, variance: within + between * (1 - weight) }];
    }),
  );
}
