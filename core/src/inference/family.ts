import { FACTOR_KINDS } from './model-parts.ts';
import type { ParentTransmission } from './transmission.ts';

/** The open candidates of an animal at one locus, those who transmit alike together. */
export interface CandidateSires {
  readonly count: number;
  /** Of the table over the choice. */
  readonly name: number;
  readonly groups: readonly {
    /** The place of the first of them in `IndexedPedigree.sire`. */
    readonly entry: number;
    readonly father: ParentTransmission;
    /** Which of the open candidates they are. */
    readonly places: readonly number[];
  }[];
}

/** What an animal's dam and candidate sires transmit. */
export interface Family {
  readonly mother: ParentTransmission;
  readonly candidates: CandidateSires;
}

/** A parent that transmits alleles which are still open. */
export interface OpenAnimal {
  readonly first: readonly number[];
  readonly second: readonly number[];
  /** Its pair in each joint state of its alleles. */
  readonly cells: readonly number[];
  /** Beside `cells`: what is known of it, parents aside. */
  readonly table: Float64Array;
  /** Where its alleles depend on open ones. */
  readonly family: Family | null;
  readonly transmission: ParentTransmission;
}

/** The places of a single candidate. */
const ONLY: readonly number[] = [0];

/**
 * @param entries - places of the open candidates in `IndexedPedigree.sire`; none where no sire is recorded
 * @param fathers - what each transmits
 * @param missing - what a sire who is not recorded transmits
 */
export function groupCandidates(
  entries: readonly number[],
  fathers: readonly ParentTransmission[],
  missing: ParentTransmission,
): CandidateSires {
  if (entries.length < 2) {
    const group = { entry: entries[0] ?? -1, father: fathers[0] ?? missing, places: ONLY };
    return { count: 1, name: -1, groups: [group] };
  }
  // Settled pairs share one object each, so that those who transmit alike are the same.
  const places = new Map<ParentTransmission, number[]>();
  fathers.forEach((father, f) => {
    const others = places.get(father);
    if (others) others.push(f);
    else places.set(father, [f]);
  });
  return {
    count: entries.length,
    name: entries[0]! * FACTOR_KINDS + 7,
    groups: [...places].map(([father, of]) => ({ entry: entries[of[0]!]!, father, places: of })),
  };
}
