/** Where the collection's growth curve bends: days of age. */
const KNOTS = [0, 30, 60, 90, 135, 180, 270, 365, 545, 730, 1095, 1460, 2190, 3650] as const;

/** Grams at the knots in a collection nobody has weighed yet. Common practice, no source. */
const USUAL_G: Readonly<Record<'female' | 'male', readonly number[]>> = {
  female: [68, 85, 115, 155, 215, 280, 400, 520, 800, 1080, 1500, 1800, 2100, 2300],
  male: [68, 85, 115, 152, 205, 265, 370, 470, 670, 850, 1080, 1230, 1400, 1500],
};
/** The usual curve weighs as much as so many animals of the collection. */
const USUAL_WEIGHT = 3;

export type CurveSex = 'female' | 'male' | 'unknown';

/** Mean of the logarithm of mass (grams) by age (days), straight between the knots. */
export interface GrowthCurve {
  readonly sex: CurveSex;
  readonly logG: readonly number[];
}

function placeOf(age: number): { knot: number; weight: number } {
  if (age <= 0) return { knot: 0, weight: 0 };
  const last = KNOTS.length - 1;
  if (age >= KNOTS[last]!) return { knot: last - 1, weight: 1 };
  const knot = KNOTS.findLastIndex((day) => day <= age);
  return { knot, weight: (age - KNOTS[knot]!) / (KNOTS[knot + 1]! - KNOTS[knot]!) };
}

export function curveAt(curve: GrowthCurve, age: number): number {
  const { knot, weight } = placeOf(age);
  return curve.logG[knot]! * (1 - weight) + curve.logG[knot + 1]! * weight;
}

/** The age at which the curve passes a mass: an age for an animal whose hatch day is not known. */
export function ageAt(curve: GrowthCurve, massG: number): number {
  const wanted = Math.log(massG);
  let low = 0;
  let high: number = KNOTS.at(-1)!;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (curveAt(curve, middle) < wanted) low = middle;
    else high = middle;
  }
  return Math.round((low + high) / 2);
}

export function usualCurve(sex: CurveSex): GrowthCurve {
  const of = (one: 'female' | 'male'): number[] => USUAL_G[one].map((g) => Math.log(g));
  const [female, male] = [of('female'), of('male')];
  if (sex !== 'unknown') return { sex, logG: sex === 'female' ? female : male };
  return { sex, logG: female.map((value, i) => (value + male[i]!) / 2) };
}

/**
 * The collection's curve: the usual one, bent at each knot by how the collection's own animals differ there. Each animal
 * counts once at a knot, however often it was weighed, and the usual curve as three animals.
 *
 * @param animals - for each animal its weights as age (days) and mass (grams)
 */
export function bendCurve(
  sex: CurveSex,
  animals: readonly (readonly { readonly age: number; readonly massG: number }[])[],
): GrowthCurve {
  const usual = usualCurve(sex);
  const sums = KNOTS.map(() => ({ off: 0, weight: 0 }));
  for (const weights of animals) {
    const own = KNOTS.map(() => ({ off: 0, weight: 0 }));
    for (const { age, massG } of weights) {
      const off = Math.log(massG) - curveAt(usual, age);
      const { knot, weight } = placeOf(age);
      own[knot]!.off += off * (1 - weight);
      own[knot]!.weight += 1 - weight;
      own[knot + 1]!.off += off * weight;
      own[knot + 1]!.weight += weight;
    }
    own.forEach(({ off, weight }, i) => {
      if (weight === 0) return;
      const share = Math.min(1, weight);
      sums[i]!.off += (off / weight) * share;
      sums[i]!.weight += share;
    });
  }
  return {
    sex,
    logG: usual.logG.map((value, i) => value + sums[i]!.off / (sums[i]!.weight + USUAL_WEIGHT)),
  };
}
