import { ConsistencyCheck } from './consistency.ts';

/** After so many questions the best set so far is answered: irreducible then, though perhaps not the smallest of all. */
const QUESTIONS = 4000;

/**
 * One smallest set of animals whose calls cannot hold together: no smaller one exists, and of equals the one whose animals
 * come first.
 *
 * Candidates are smallest sets that meet every known way out (a set of animals whose calls, left out, make the rest hold);
 * each candidate that still holds is grown as far as it holds, which shows a new way out (implicit hitting sets: Ignatiev
 * et al. 2015, CP 2015, "Smallest MUS extraction with minimal hitting set dualization").
 *
 * @returns places of the animals in the pedigree, ascending; empty where everything holds
 */
export function smallestConflict(check: ConsistencyCheck): number[] {
  const callers = check.callers();
  if (check.holds(new Set(callers))) return [];
  const known = irreducible(check, callers);
  const waysOut: number[][] = [];
  for (let asked = 0; asked < QUESTIONS;) {
    const candidate = smallestHittingSet(waysOut, known.length);
    if (candidate === null) return known;
    asked++;
    if (!check.holds(new Set(candidate))) return candidate.toSorted((a, b) => a - b);
    const { kept, questions } = grow(check, candidate, callers);
    asked += questions;
    waysOut.push(callers.filter((animal) => !kept.has(animal)));
  }
  return known;
}

/** Drops animals, in halves where possible, for as long as the rest still clash (QuickXplain: Junker 2004, AAAI-04). */
function irreducible(check: ConsistencyCheck, callers: readonly number[]): number[] {
  const explain = (background: readonly number[], grew: boolean, open: readonly number[]): number[] => {
    if (grew && !check.holds(new Set(background))) return [];
    if (open.length === 1) return [...open];
    const half = open.length >> 1;
    const [left, right] = [open.slice(0, half), open.slice(half)];
    const fromRight = explain([...background, ...left], left.length > 0, right);
    const fromLeft = explain([...background, ...fromRight], fromRight.length > 0, left);
    return [...fromLeft, ...fromRight];
  };
  return explain([], false, callers).toSorted((a, b) => a - b);
}

/** Adds animals, in halves where possible, for as long as everything holds. */
function grow(
  check: ConsistencyCheck,
  start: readonly number[],
  callers: readonly number[],
): { kept: Set<number>; questions: number } {
  const kept = new Set(start);
  let questions = 0;
  const add = (animals: readonly number[]): void => {
    if (animals.length === 0) return;
    questions++;
    if (check.holds(new Set([...kept, ...animals]))) {
      animals.forEach((animal) => kept.add(animal));
    } else if (animals.length > 1) {
      const half = animals.length >> 1;
      add(animals.slice(0, half));
      add(animals.slice(half));
    }
  };
  add(callers.filter((animal) => !kept.has(animal)));
  return { kept, questions };
}

/** A smallest set that meets each of the sets, first in order of the animals; null where `below` or more are needed. */
function smallestHittingSet(sets: readonly (readonly number[])[], below: number): number[] | null {
  for (let size = 0; size < below; size++) {
    const found = hittingSet(sets, size);
    if (found) return found;
  }
  return null;
}

function hittingSet(sets: readonly (readonly number[])[], size: number): number[] | null {
  const missed = sets.filter((set) => set.length > 0).toSorted((a, b) => a.length - b.length)[0];
  if (!missed) return [];
  if (size === 0) return null;
  for (const animal of missed) {
    const rest = hittingSet(
      sets.filter((set) => !set.includes(animal)),
      size - 1,
    );
    if (rest) return [animal, ...rest];
  }
  return null;
}
