export type PreySpecies = 'rat' | 'mouse';
export type PreyState = 'live' | 'frozen-thawed' | 'fresh-killed';

export interface PreySize {
  readonly species: PreySpecies;
  readonly size: string;
  /** Grams. */
  readonly fromG: number;
  readonly toG: number;
}

/** Prey by mass, grams. Common practice, no source. */
export const PREY_SIZES: readonly PreySize[] = [
  { species: 'mouse', size: 'pinky', fromG: 1, toG: 3 },
  { species: 'mouse', size: 'fuzzy', fromG: 3, toG: 6 },
  { species: 'mouse', size: 'hopper', fromG: 7, toG: 12 },
  { species: 'mouse', size: 'adult', fromG: 20, toG: 35 },
  { species: 'rat', size: 'pinky', fromG: 4, toG: 10 },
  { species: 'rat', size: 'fuzzy', fromG: 10, toG: 20 },
  { species: 'rat', size: 'pup', fromG: 20, toG: 35 },
  { species: 'rat', size: 'weaned', fromG: 35, toG: 60 },
  { species: 'rat', size: 'small', fromG: 60, toG: 120 },
  { species: 'rat', size: 'medium', fromG: 120, toG: 200 },
  { species: 'rat', size: 'large', fromG: 200, toG: 400 },
];

/**
 * The size of a species that a meal of so many grams asks for: the largest that begins at or below it.
 *
 * @example preyFor('rat', 30).size // "pup"
 */
export function preyFor(species: PreySpecies, preyG: number): PreySize {
  const sizes = PREY_SIZES.filter((prey) => prey.species === species);
  return sizes.findLast((size) => size.fromG <= preyG) ?? sizes[0]!;
}

/**
 * What one of a size weighs, grams: the middle of its range. Null for a size that is not on the list.
 *
 * @example preyMass('rat', 'pup') // 27.5
 */
export function preyMass(species: string, size: string): number | null {
  const found = PREY_SIZES.find((prey) => prey.species === species && prey.size === size);
  return found ? (found.fromG + found.toG) / 2 : null;
}
