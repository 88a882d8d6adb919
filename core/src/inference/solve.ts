import { CostError } from '../errors.ts';
import { costOfJoints, jointMarginals } from './joint-marginals.ts';
import { chooseOrder, JunctionTree, MOST, type Component, type CostLimits } from './junction-tree.ts';

export interface Solution {
  /** Natural logarithm of the sum over all states; -Infinity where no state is possible. */
  readonly logTotal: number;
  /** For each factor the marginal over its scope, adding up to 1. Empty where no state is possible. */
  readonly marginals: readonly Float64Array[];
  /** Beside the sets of variables that were asked for. */
  readonly joints: readonly Float64Array[];
  readonly largest: number;
}

/**
 * The probability of everything, the marginal over each factor's variables, and joint marginals of others. Exact.
 *
 * @param asked - sets of variables, by their numbers
 * @throws CostError where that needs larger tables than allowed
 */
export function solve(
  component: Component,
  asked: readonly Int32Array[] = [],
  limits: CostLimits = MOST,
): Solution {
  const tree = new JunctionTree(component, chooseOrder(component), limits);
  if (limits.joints < Infinity && costOfJoints(tree, asked) > limits.joints)
    throw new CostError(tree.largest, limits.table);
  if (!tree.collect()) return { logTotal: -Infinity, marginals: [], joints: [], largest: tree.largest };
  tree.distribute();
  return {
    logTotal: tree.logTotal,
    marginals: tree.marginals(),
    joints: jointMarginals(tree, asked),
    largest: tree.largest,
  };
}
