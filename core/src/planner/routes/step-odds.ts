import type { Parent } from '../../odds/parent.ts';
import type { Target } from '../../odds/target.ts';
import { pairOdds } from '../best-mates.ts';
import { kindsOf } from './offspring.ts';
import type { RouteStep } from './route.ts';

/**
 * The chance that one egg of a pair is what a step keeps (sex included), or the target where it keeps nothing: with the
 * parents as they are known now, which may be more than when the route was found. Kinds rarer than 1 in 400 count as none.
 *
 * @example stepOdds({ keep: null }, parseParent('het clown', 'female').parent, parseParent('clown', 'male').parent, toTarget(parseGenes('clown'))) // 0.5
 */
export function stepOdds(
  { keep }: Pick<RouteStep, 'keep'>,
  dam: Parent,
  sire: Parent,
  target: Target,
): number {
  if (!keep) return pairOdds(target)(sire, dam);
  return kindsOf(sire, dam, target)
    .filter(
      ({ sex, phenotype }) =>
        sex === keep.sex && target.every(({ locus }) => phenotype[locus.id] === keep.phenotype[locus.id]),
    )
    .reduce((sum, { perEgg }) => sum + perEgg, 0);
}
