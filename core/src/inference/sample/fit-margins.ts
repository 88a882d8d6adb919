/** How often each margin is fitted. */
const ROUNDS = 4;

/**
 * Brings a table to have given margins, with its dependence kept: iterative proportional fitting (Deming & Stephan 1940,
 * Annals of Mathematical Statistics 11, 427-444).
 *
 * @param fitted - changed in place
 * @param sizes - of its axes, the last moving fastest
 * @param margins - one for each axis, adding up to 1; what is below 0 by sampling error counts as 0
 */
export function fitMargins(
  fitted: Float64Array,
  sizes: readonly number[],
  margins: readonly Float64Array[],
): void {
  for (let round = 0; round < ROUNDS; round++) {
    let inner = 1;
    for (let axis = sizes.length - 1; axis >= 0; axis--) {
      const states = sizes[axis]!;
      const sums = new Float64Array(states);
      for (let at = 0; at < fitted.length; at++) sums[Math.floor(at / inner) % states]! += fitted[at]!;
      for (let at = 0; at < fitted.length; at++) {
        const s = Math.floor(at / inner) % states;
        if (sums[s]! > 0) fitted[at]! *= Math.max(0, margins[axis]![s]!) / sums[s]!;
      }
      inner *= states;
    }
  }
}
