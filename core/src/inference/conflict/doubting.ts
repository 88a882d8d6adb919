import type { Call, Pedigree } from '../../pedigree/document.ts';
import { shareAmongLooks } from '../../pedigree/looks.ts';
import { HOW_OFTEN } from './hypotheses.ts';

/** The chance that what a record says of a locus is wrong, before its relatives are asked. */
export type ErrorOf = (call: Call) => number;

/**
 * The same records, of which none at these loci is certain: each is wrong as often as it says of itself, and at least as
 * often as identifications are. That an animal lives is no record's word, and stays as it is.
 */
export function doubting(
  pedigree: Pedigree,
  loci: readonly string[],
  errorOf: ErrorOf = () => HOW_OFTEN.identification,
): Pedigree {
  const doubted = new Set<Call>();
  const doubt = (call: Call): Call => {
    if (call.isSurvival || !loci.includes(call.locus)) return call;
    const least = errorOf(call);
    if ((call.error ?? 0) >= least) return call;
    const { outside: _, ...rest } = call;
    const open = { ...rest, error: least };
    doubted.add(open);
    return open;
  };
  const animals = pedigree.animals.map((animal) =>
    animal.calls?.some((call) => loci.includes(call.locus))
      ? { ...animal, calls: animal.calls.map(doubt) }
      : animal,
  );
  return { ...pedigree, animals: shareAmongLooks(pedigree.loci, animals, doubted) };
}
