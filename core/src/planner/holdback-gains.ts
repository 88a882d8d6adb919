import { pairOdds, type PlannerAnimal } from './best-mates.ts';
import type { Target } from '../odds/target.ts';

export interface BestPair {
  readonly dam: string;
  readonly sire: string;
  readonly perEgg: number;
}

/** What holding an animal back would add: the best pair for a target with it. */
export interface HoldbackGain {
  readonly id: string;
  /** Null where no pair with it can give the target. */
  readonly best: BestPair | null;
}

export interface HoldbackGains {
  /** The best pair of all the others; null where none can give it. */
  readonly without: BestPair | null;
  readonly gains: readonly HoldbackGain[];
}

/**
 * For a target, the best pair without any of the candidates, and the best one with each: what each would add once it is grown.
 * Pairs more closely related than the bound do not count; that somebody is not grown yet does.
 *
 * @example holdbackGains([], [], toTarget(parseGenes('clown')), () => 0, 0.1) // {"without": null, "gains": []}
 */
export function holdbackGains(
  animals: readonly PlannerAnimal[],
  candidates: readonly string[],
  target: Target,
  kinship: (dam: string, sire: string) => number,
  inbreedingBound: number,
): HoldbackGains {
  const oddsOf = pairOdds(target);
  const open = new Set(candidates);
  const others = animals.filter(({ id }) => !open.has(id));
  const best = (females: readonly PlannerAnimal[], males: readonly PlannerAnimal[]): BestPair | null => {
    let found: BestPair | null = null;
    for (const dam of females) {
      for (const sire of males) {
        const perEgg = oddsOf(sire.parent, dam.parent);
        if (perEgg <= (found?.perEgg ?? 0) || kinship(dam.id, sire.id) > inbreedingBound) continue;
        found = { dam: dam.id, sire: sire.id, perEgg };
      }
    }
    return found;
  };
  const females = others.filter(({ sex }) => sex === 'female');
  const males = others.filter(({ sex }) => sex === 'male');
  return {
    without: best(females, males),
    gains: animals
      .filter(({ id }) => open.has(id))
      .map((one) => ({
        id: one.id,
        best: one.sex === 'female' ? best([one], males) : best(females, [one]),
      })),
  };
}
