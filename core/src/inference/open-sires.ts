import { sireCount, type IndexedPedigree } from '../pedigree/index-pedigree.ts';
import type { LocusDomains } from './domains.ts';

/** What one locus alone says of the candidates. */
interface LocusSires {
  readonly alone: Pick<LocusDomains, 'sireOpen'>;
  /** Left out: it rules out nobody. */
  readonly excluded: boolean;
}

/** Which candidate sires no locus rules out. */
export class OpenSires {
  /** 1 for each candidate that is open, in the order of `IndexedPedigree.sire`. */
  readonly open: Uint8Array;
  /** Places of the others. */
  readonly closed: readonly number[];
  private readonly ties: IndexedPedigree;

  private constructor(ties: IndexedPedigree, open: Uint8Array) {
    this.ties = ties;
    this.open = open;
    const closed: number[] = [];
    open.forEach((isOpen, e) => isOpen === 0 && closed.push(e));
    this.closed = closed;
  }

  static none(ties: IndexedPedigree): OpenSires {
    return new OpenSires(ties, new Uint8Array());
  }

  /** @param undecided - animals whose candidates must all stay open */
  static of(ties: IndexedPedigree, loci: readonly LocusSires[], undecided: ReadonlySet<number>): OpenSires {
    const open = new Uint8Array(ties.sire.length).fill(1);
    for (let i = 0; i < ties.size; i++) {
      const from = ties.sireStart[i]!;
      const to = ties.sireStart[i + 1]!;
      if (to - from < 2) continue;
      for (const { alone, excluded } of loci) {
        if (!excluded) for (let e = from; e < to; e++) open[e]! &= alone.sireOpen[e]!;
      }
      const none = open.subarray(from, to).every((isOpen) => isOpen === 0);
      if (none || undecided.has(i)) open.fill(1, from, to);
    }
    return new OpenSires(ties, open);
  }

  /** Animals whose open candidates are others than these. */
  differingFrom(other: Uint8Array): number[] {
    const changed: number[] = [];
    for (let i = 0; i < this.ties.size; i++) {
      const to = this.ties.sireStart[i + 1]!;
      if (to - this.ties.sireStart[i]! < 2) continue;
      for (let e = this.ties.sireStart[i]!; e < to; e++) {
        if (this.open[e] === other[e]) continue;
        changed.push(i);
        break;
      }
    }
    return changed;
  }

  /** The keeper's weights of an animal's open candidates. */
  weightsOf(animal: number): number[] {
    const weights: number[] = [];
    for (let e = this.ties.sireStart[animal]!; e < this.ties.sireStart[animal + 1]!; e++) {
      if (this.open[e]) weights.push(this.ties.sireWeight[e]!);
    }
    return weights;
  }

  /** What ruling out candidates costs: the natural logarithm of the weight that is left, over all animals. */
  logWeight(): number {
    let sum = 0;
    for (let i = 0; i < this.ties.size; i++) {
      if (sireCount(this.ties, i) < 2) continue;
      const left = this.weightsOf(i).reduce((a, b) => a + b, 0);
      sum += Math.log(Math.min(1, left));
    }
    return sum;
  }
}
