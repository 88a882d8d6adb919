import type { Pedigree } from '../pedigree/document.ts';
import { indexPedigree, type IndexedPedigree } from '../pedigree/index-pedigree.ts';

/**
 * Coefficients of kinship of all pairs: the chance that an allele drawn from one and an allele of the same locus drawn from
 * the other are copies of one ancestor's allele (Malecot 1948; the tabular method: Emik & Terrill 1949, J. Heredity 40).
 *
 * Where the sire is open, the mean over the candidates by their weights: the expectation, since the sire is one of them.
 * Founders and unrecorded parents are unrelated to everybody.
 *
 * Cost: one step and 4 bytes for each pair; 5,000 animals take 50 MB.
 */
export class KinshipTable {
  private readonly ties: IndexedPedigree;
  /** Row by row below the diagonal, in ancestral order, diagonal included. */
  private readonly table: Float32Array;

  constructor(pedigree: Pick<Pedigree, 'animals'>) {
    this.ties = indexPedigree(pedigree);
    const { size, order, rank, dam, sireStart, sire, sireWeight } = this.ties;
    this.table = new Float32Array((size * (size + 1)) / 2);
    const row = new Float64Array(size);
    for (let at = 0; at < size; at++) {
      const i = order[at]!;
      row.fill(0, 0, at);
      let parents = 0;
      const mother = dam[i]!;
      if (mother >= 0) this.addRow(row, at, rank[mother]!, 0.5);
      for (let e = sireStart[i]!; e < sireStart[i + 1]!; e++) {
        this.addRow(row, at, rank[sire[e]!]!, 0.5 * sireWeight[e]!);
        if (mother >= 0) parents += sireWeight[e]! * this.at(rank[mother]!, rank[sire[e]!]!);
      }
      const start = (at * (at + 1)) / 2;
      for (let other = 0; other < at; other++) this.table[start + other] = row[other]!;
      this.table[start + at] = 0.5 * (1 + parents);
    }
  }

  private addRow(row: Float64Array, below: number, parent: number, weight: number): void {
    const { table } = this;
    const start = (parent * (parent + 1)) / 2;
    for (let other = 0; other <= parent; other++) row[other]! += weight * table[start + other]!;
    for (let other = parent + 1, at = start + 2 * parent + 1; other < below; at += ++other)
      row[other]! += weight * table[at]!;
  }

  private at(a: number, b: number): number {
    const [high, low] = a > b ? [a, b] : [b, a];
    return this.table[(high * (high + 1)) / 2 + low]!;
  }

  private placeOf(id: string): number {
    return this.ties.rank[this.ties.indexOf.get(id)!]!;
  }

  /** The coefficient of kinship of two animals: also the inbreeding that their young would have. */
  kinship(a: string, b: string): number {
    return this.at(this.placeOf(a), this.placeOf(b));
  }

  /** The coefficient of inbreeding F (Wright 1922, American Naturalist 56): the kinship of the parents. */
  inbreeding(id: string): number {
    return 2 * this.kinship(id, id) - 1;
  }

  /** The coefficient of relationship R (Wright 1922): twice the kinship over the root of (1+F) of both. */
  relationship(a: string, b: string): number {
    return (2 * this.kinship(a, b)) / Math.sqrt((1 + this.inbreeding(a)) * (1 + this.inbreeding(b)));
  }
}
