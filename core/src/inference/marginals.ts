import { axesOf, type Axes, type Factor } from './factor.ts';
import type { Block, Distribution, Need, Reading } from './model.ts';
import { jointKey, standardErrors, type Part } from './parts.ts';

/** Where a factor's marginal stands. */
export interface Placed {
  readonly part: Part;
  readonly at: number;
}

/** Blocks of a need, and the factor of each: the factors of one locus and the priors of open sires and sexes. */
export type FactorOf = (block: Block) => Factor;

/** A marginal, and its like in each independent run where it is an estimate. */
interface Marginal {
  readonly table: Float64Array;
  readonly runs: readonly Float64Array[] | null;
}

/** Blocks of a need that one part holds. */
interface Piece {
  readonly placed: Placed | undefined;
  readonly factors: Factor[];
  /** Places of its blocks in the need. */
  readonly blocks: number[];
}

/** Reads marginals off the parts that factors stand in. Variables of different parts are independent. */
export class Marginals {
  private readonly placed: ReadonlyMap<Factor, Placed>;

  /** @param placed - factors that stand in a part. Another is the prior of something that nothing speaks of */
  constructor(placed: ReadonlyMap<Factor, Placed>) {
    this.placed = placed;
  }

  /** @returns null where a part is impossible */
  of(need: Need, factorOf: FactorOf): Marginal | null {
    const pieces = piecesOf(need, factorOf, (factor) => this.placed.get(factor));
    if (pieces.some(({ placed }) => placed?.part.logTotal === -Infinity)) return null;
    const sizes = need.map((block) => factorOf(block).table.length);
    const count = Math.max(0, ...pieces.map(({ placed }) => placed?.part.runs?.length ?? 0));
    const read = (run: number | null): Float64Array =>
      product(
        sizes,
        pieces.map((piece) => ({ blocks: piece.blocks, table: tableOf(piece, run) })),
      );
    return {
      table: read(null),
      runs: count === 0 ? null : Array.from({ length: count }, (_, run) => read(run)),
    };
  }
}

/** @returns a reading's distribution, with its standard error where it is an estimate; null where its part is impossible */
export function readOff(
  { needs, read }: Reading,
  marginals: Marginals,
  factorOf: FactorOf,
): { distribution: Distribution; error: Distribution | null } | null {
  const found: Marginal[] = [];
  for (const need of needs) {
    const marginal = marginals.of(need, factorOf);
    if (!marginal) return null;
    found.push(marginal);
  }
  const runs = Math.max(0, ...found.map((one) => one.runs?.length ?? 0));
  const each = Array.from({ length: runs }, (_, run) =>
    read(found.map((one) => one.runs?.[run] ?? one.table)),
  );
  return {
    distribution: read(found.map(({ table }) => table)),
    error: runs > 0 ? standardErrors(each) : null,
  };
}

function tableOf({ placed, factors }: Piece, run: number | null): Float64Array {
  if (!placed) return factors[0]!.table;
  const { part, at } = placed;
  const found = run === null ? part : (part.runs?.[run] ?? part);
  return factors.length === 1 ? found.marginals[at]! : found.joints.get(keyOf(factors))!;
}

const keyOf = (factors: readonly Factor[]): string => jointKey(factors.flatMap(({ scope }) => scope));

/** The blocks of a need by the part that they stand in. */
function piecesOf(need: Need, factorOf: FactorOf, placeOf: (factor: Factor) => Placed | undefined): Piece[] {
  const pieces: Piece[] = [];
  need.forEach((block, at) => {
    const factor = factorOf(block);
    const placed = placeOf(factor);
    const same = placed && pieces.find((piece) => piece.placed?.part === placed.part);
    if (same) {
      same.factors.push(factor);
      same.blocks.push(at);
    } else pieces.push({ placed, factors: [factor], blocks: [at] });
  });
  return pieces;
}

/**
 * What is asked of groups of factors beyond the marginals of each: the joint marginals of blocks that stand in one group.
 *
 * @param groupOf - of each factor that is being summed; undefined for others
 * @param into - takes it, by group
 */
export function askGroups(
  need: Need,
  factorOf: FactorOf,
  groupOf: (factor: Factor) => number | undefined,
  into: Map<number, Map<string, Axes>>,
): void {
  const groups = new Map<number, Factor[]>();
  for (const block of need) {
    const factor = factorOf(block);
    const group = groupOf(factor);
    if (group === undefined) continue;
    const others = groups.get(group);
    if (others) others.push(factor);
    else groups.set(group, [factor]);
  }
  for (const [group, factors] of groups) {
    if (factors.length < 2) continue;
    const asked = into.get(group) ?? new Map<string, Axes>();
    into.set(group, asked.set(keyOf(factors), axesOf(...factors)));
  }
}

/** The product of tables over some of the blocks each, as one table over all of them. */
function product(
  sizes: readonly number[],
  pieces: readonly { readonly blocks: readonly number[]; readonly table: Float64Array }[],
): Float64Array {
  if (pieces.length === 1) return pieces[0]!.table;
  const whole = new Float64Array(sizes.reduce((a, b) => a * b, 1)).fill(1);
  const states = sizes.map(() => 0);
  for (let at = 0; at < whole.length; at++) {
    for (const { blocks, table } of pieces) {
      whole[at]! *= table[blocks.reduce((place, block) => place * sizes[block]! + states[block]!, 0)]!;
    }
    for (let axis = sizes.length - 1; axis >= 0 && ++states[axis]! === sizes[axis]!; axis--) states[axis] = 0;
  }
  return whole;
}
