import type { Component } from '../junction-tree.ts';

/** How often a blind alley is left before giving up. */
const STEPS = 20_000;

/**
 * A state of the named variables that arc consistency finds nothing against, drawn by chance; depth first with
 * backtracking. The other variables are narrowed down on the way, but not set.
 *
 * @returns -1 for variables that were not asked for; null where none was found in reasonable time
 */
export function drawStart(
  component: Component,
  variables: readonly number[],
  random: () => number,
): Int32Array | null {
  const watching: number[][] = Array.from(component.sizes, () => []);
  component.scopes.forEach((scope, factor) => scope.forEach((variable) => watching[variable]!.push(factor)));
  const whole = Array.from(component.sizes, (size) => 2 ** size - 1);
  const first = propagate(component, watching, whole, component.scopes.keys());
  let steps = 0;
  const place = (domains: readonly number[], at: number): readonly number[] | null => {
    if (at === variables.length) return domains;
    const variable = variables[at]!;
    const states = [...Array(component.sizes[variable]!).keys()].filter((s) => (domains[variable]! >> s) & 1);
    while (states.length > 0 && steps++ < STEPS) {
      const [state] = states.splice(Math.floor(random() * states.length), 1);
      const narrowed = propagate(
        component,
        watching,
        domains.with(variable, 1 << state!),
        watching[variable]!,
      );
      const found = narrowed && place(narrowed, at + 1);
      if (found) return found;
    }
    return null;
  };
  const found = first && place(first, 0);
  if (!found) return null;
  const state = new Int32Array(component.sizes.length).fill(-1);
  for (const variable of variables) state[variable] = 31 - Math.clz32(found[variable]!);
  return state;
}

/** Drops states that some table leaves no support (generalised arc consistency); null where a variable has none left. */
function propagate(
  { sizes, scopes, tables }: Component,
  watching: readonly (readonly number[])[],
  domains: readonly number[],
  factors: Iterable<number>,
): number[] | null {
  const left = [...domains];
  const queue = new Set(factors);
  for (const factor of queue) {
    queue.delete(factor);
    const scope = scopes[factor]!;
    const supported = new Int32Array(scope.length);
    const states = new Int32Array(scope.length);
    for (let at = 0; at < tables[factor]!.length; at++) {
      if (
        tables[factor]![at]! > 0 &&
        scope.every((variable, axis) => (left[variable]! >> states[axis]!) & 1)
      ) {
        states.forEach((state, axis) => (supported[axis]! |= 1 << state));
      }
      for (let axis = scope.length - 1; axis >= 0 && ++states[axis]! === sizes[scope[axis]!]!; axis--)
        states[axis] = 0;
    }
    for (let axis = 0; axis < scope.length; axis++) {
      const variable = scope[axis]!;
      const next = left[variable]! & supported[axis]!;
      if (next === left[variable]) continue;
      if (next === 0) return null;
      left[variable] = next;
      for (const other of watching[variable]!) if (other !== factor) queue.add(other);
    }
  }
  return left;
}
