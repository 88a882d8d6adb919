import { axesOf, type Axes, type Factor } from './factor.ts';
import type { Block, Derived, Distribution, Need, Reading } from './model.ts';
import { jointKey, standardErrors, type Part } from './parts.ts';

/** Where a factor's marginal stands. */
export interface Placed {
  readonly part: Part;
  readonly at: number;
}

/** What the blocks of one locus's needs stand for. */
export interface Blocks {
  /** The factor over a block's variables: one of the locus, or the prior of an open sire or sex. */
  readonly factorOf: (block: Block) => Factor;
  /** How a block follows from others; undefined where it has a factor. */
  readonly derivedOf: (block: Block) => Derived | undefined;
}

/** Blocks of a need that one part holds. */
interface Piece {
  readonly placed: Placed | undefined;
  readonly factors: Factor[];
  /** Places of its blocks in the need. */
  readonly blocks: number[];
}

/** The needs without derived blocks from which one follows. */
export function primitives(need: Need, blocks: Blocks): Need[] {
  const at = firstDerived(need, blocks);
  if (at < 0) return [need];
  return termNeeds(need, at, blocks).flatMap((term) => primitives(term, blocks));
}

/** The place of the derived block from which none of the others descends; -1 where there is none. */
function firstDerived(need: Need, { derivedOf }: Blocks): number {
  let first = -1;
  let order = Infinity;
  need.forEach((block, at) => {
    const derived = derivedOf(block);
    if (!derived || derived.order >= order) return;
    first = at;
    order = derived.order;
  });
  return first;
}

/** For each term of a derived block: the need with what is given in its stead. */
function termNeeds(need: Need, at: number, { derivedOf }: Blocks): Need[] {
  return derivedOf(need[at]!)!.terms.map(({ choice, given }) => {
    const wanted: Block[] = need.filter((_, n) => n !== at);
    for (const block of choice ? [{ tie: choice.tie }, ...given] : given)
      if (!wanted.some((other) => isSameBlock(other, block))) wanted.push(block);
    return wanted;
  });
}

function isSameBlock(a: Block, b: Block): boolean {
  if ('tie' in a) return 'tie' in b && a.tie === b.tie;
  if ('own' in a) return 'own' in b && a.own === b.own;
  return 'factor' in b && a.factor === b.factor;
}

const keyOf = (need: Need): string =>
  need
    .map((block) => ('tie' in block ? block.tie : 'own' in block ? `a${block.own}` : `f${block.factor}`))
    .join();

/** Reads the needs of one locus off the parts that factors stand in. Variables of different parts are independent. */
export class Marginals {
  private readonly placed: ReadonlyMap<Factor, Placed>;
  private readonly blocks: Blocks;
  private readonly pieces = new Map<Need, readonly Piece[]>();
  /** Of derived blocks, which siblings share. */
  private readonly known = new Map<string, Float64Array>();

  /** @param placed - factors that stand in a part. Another is the prior of something that nothing speaks of */
  constructor(placed: ReadonlyMap<Factor, Placed>, blocks: Blocks) {
    this.placed = placed;
    this.blocks = blocks;
  }

  /**
   * @param primitive - the needs without derived blocks from which those of the reading follow
   * @returns a reading's distribution, with its standard error where it is an estimate; null where its part is impossible
   */
  read(
    { needs, read }: Reading,
    primitive: readonly Need[],
  ): { distribution: Distribution; error: Distribution | null } | null {
    if (needs.length === 0) return { distribution: read([]), error: null };
    const single = this.singlePart(needs);
    if (single && !single.part.runs) {
      if (single.part.logTotal === -Infinity) return null;
      return { distribution: read([single.part.marginals[single.at]!]), error: null };
    }
    const parts = primitive.flatMap((need) =>
      need.flatMap((block) => this.placed.get(this.blocks.factorOf(block))?.part ?? []),
    );
    if (parts.some(({ logTotal }) => logTotal === -Infinity)) return null;
    const runs = Math.max(0, ...parts.map((part) => part.runs?.length ?? 0));
    const at = (run: number): Distribution => read(needs.map((need) => this.of(need, run)));
    return {
      distribution: at(MEAN),
      error: runs > 0 ? standardErrors(Array.from({ length: runs }, (_, run) => at(run))) : null,
    };
  }

  /** Where the only thing that is needed stands, if that is the marginal of one factor. */
  private singlePart(needs: readonly Need[]): Placed | undefined {
    const [block] = needs[0]!;
    if (needs.length > 1 || needs[0]!.length > 1 || !block || this.blocks.derivedOf(block)) return undefined;
    return this.placed.get(this.blocks.factorOf(block));
  }

  private of(need: Need, run: number): Float64Array {
    const at = firstDerived(need, this.blocks);
    if (at < 0) return this.ofPrimitive(need, run);
    const key = `${run}:${keyOf(need)}`;
    const known = this.known.get(key);
    if (known) return known;
    const sizes = need.map((block) => this.sizeOf(block));
    const whole = new Float64Array(sizes.reduce((a, b) => a * b, 1));
    termNeeds(need, at, this.blocks).forEach((wanted, t) =>
      this.addTerm(whole, { need, at, t, wanted, sizes }, run),
    );
    this.known.set(key, whole);
    return whole;
  }

  /** Adds one term of a derived block to a table over the blocks of a need. */
  private addTerm(
    whole: Float64Array,
    {
      need,
      at,
      t,
      wanted,
      sizes,
    }: { need: Need; at: number; t: number; wanted: Need; sizes: readonly number[] },
    run: number,
  ): void {
    const { terms, states: ownStates } = this.blocks.derivedOf(need[at]!)!;
    const { choice, given, table } = terms[t]!;
    const from = this.of(wanted, run);
    const place = (block: Block): number => wanted.findIndex((other) => isSameBlock(other, block));
    const wantedSizes = wanted.map((block) => this.sizeOf(block));
    const givenPlaces = given.map(place);
    const choicePlace = choice ? place({ tie: choice.tie }) : -1;
    const strides = sizes.map((_, axis) => sizes.slice(axis + 1).reduce((a, b) => a * b, 1));
    const targets = need.map((block, axis) => ({
      from: axis === at ? -1 : place(block),
      stride: strides[axis]!,
    }));
    forEachState(wantedSizes, (states, entry) => {
      const p = from[entry]!;
      if (p === 0 || (choice && !choice.places.includes(states[choicePlace]!))) return;
      const row = givenPlaces.reduce((sum, n) => sum * wantedSizes[n]! + states[n]!, 0) * ownStates;
      const base = targets.reduce(
        (sum, one) => (one.from < 0 ? sum : sum + states[one.from]! * one.stride),
        0,
      );
      for (let own = 0; own < ownStates; own++) whole[base + own * strides[at]!]! += p * table[row + own]!;
    });
  }

  private sizeOf(block: Block): number {
    return this.blocks.derivedOf(block)?.states ?? this.blocks.factorOf(block).table.length;
  }

  private ofPrimitive(need: Need, run: number): Float64Array {
    const pieces = this.piecesOf(need);
    if (pieces.length === 1) return tableOf(pieces[0]!, run);
    return product(
      need.map((block) => this.sizeOf(block)),
      pieces.map((piece) => ({ blocks: piece.blocks, table: tableOf(piece, run) })),
    );
  }

  /** The blocks of a need by the part that they stand in. */
  private piecesOf(need: Need): readonly Piece[] {
    const known = this.pieces.get(need);
    if (known) return known;
    const pieces: Piece[] = [];
    this.pieces.set(need, pieces);
    need.forEach((block, at) => {
      const factor = this.blocks.factorOf(block);
      const placed = this.placed.get(factor);
      const same = placed && pieces.find((piece) => piece.placed?.part === placed.part);
      if (same) {
        same.factors.push(factor);
        same.blocks.push(at);
      } else pieces.push({ placed, factors: [factor], blocks: [at] });
    });
    return pieces;
  }
}

/** In the place of a run: the answer itself. */
const MEAN = -1;

function tableOf({ placed, factors }: Piece, run: number): Float64Array {
  if (!placed) return factors[0]!.table;
  const { part, at } = placed;
  const found = run === MEAN ? part : (part.runs?.[run] ?? part);
  return factors.length === 1 ? found.marginals[at]! : found.joints.get(jointKey(axesOf(...factors).scope))!;
}

/**
 * What is asked of groups of factors beyond the marginals of each: the joint marginals of blocks that stand in one group.
 *
 * @param need - without derived blocks
 * @param groupOf - of each factor that is being summed; undefined for others
 * @param into - takes it, by group
 */
export function askGroups(
  need: Need,
  { factorOf }: Blocks,
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
    const axes = axesOf(...factors);
    into.set(group, asked.set(jointKey(axes.scope), axes));
  }
}

/** The product of tables over some of the blocks each, as one table over all of them. */
function product(
  sizes: readonly number[],
  pieces: readonly { readonly blocks: readonly number[]; readonly table: Float64Array }[],
): Float64Array {
  const whole = new Float64Array(sizes.reduce((a, b) => a * b, 1)).fill(1);
  forEachState(sizes, (states, at) => {
    for (const { blocks, table } of pieces)
      whole[at]! *= table[blocks.reduce((place, block) => place * sizes[block]! + states[block]!, 0)]!;
  });
  return whole;
}

/** Every joint state of axes of these sizes, the last fastest. @param see - must not keep the states */
function forEachState(sizes: readonly number[], see: (states: readonly number[], at: number) => void): void {
  const states = sizes.map(() => 0);
  const count = sizes.reduce((a, b) => a * b, 1);
  for (let at = 0; at < count; at++) {
    see(states, at);
    for (let axis = sizes.length - 1; axis >= 0 && ++states[axis]! === sizes[axis]!; axis--) states[axis] = 0;
  }
}
