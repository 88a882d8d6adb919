import type { Pedigree } from '../../pedigree/document.ts';
import { indexPedigree, type IndexedPedigree } from '../../pedigree/index-pedigree.ts';
import { DomainTable } from '../domain-table.ts';
import { narrowDomains, type LocusDomains } from '../domains.ts';
import { LocusEvidence } from '../evidence.ts';
import type { Factor } from '../factor.ts';
import { logTotal, toComponent } from '../junction-tree.ts';
import { LocusModelBuilder } from '../locus-model.ts';
import { groupFactors } from '../parts.ts';

/**
 * Asks again and again whether the calls of some animals can all be true at some loci: the parentage and the founders'
 * statements always hold, the calls of the other animals are passed over.
 */
export class ConsistencyCheck {
  private readonly pedigree: Pedigree;
  private readonly ties: IndexedPedigree;
  private readonly splitSex: boolean;
  private readonly loci: { evidence: LocusEvidence; called: Int32Array; table: DomainTable }[];

  /** @param splitSex - lets an animal of unknown sex be of another sex at each locus */
  constructor(pedigree: Pedigree, loci: readonly string[], { splitSex = false } = {}) {
    this.pedigree = pedigree;
    this.ties = indexPedigree(pedigree);
    this.splitSex = splitSex;
    this.loci = pedigree.loci
      .filter((locus) => loci.includes(locus.id))
      .map((locus) => {
        const evidence = new LocusEvidence(locus, this.ties.size);
        pedigree.animals.forEach((animal, i) => {
          const calls = (animal.calls ?? []).filter((call) => call.locus === locus.id);
          evidence.read(i, calls, animal.founder, this.ties.sex[i]!);
        });
        return {
          evidence,
          called: evidence.likelihood.slice(),
          table: new DomainTable(evidence.alleles.length),
        };
      });
  }

  /** The animals with a call at these loci that could contradict anything: one that is never wrong. */
  callers(): number[] {
    return [...Array(this.ties.size).keys()].filter((i) =>
      this.loci.some(({ evidence, called }) => evidence.likelihoods[called[i]!]!.includes(0)),
    );
  }

  /** @param animals - whose calls count; all by default */
  holds(animals?: ReadonlySet<number>): boolean {
    const open = new Uint8Array(this.ties.sire.length).fill(1);
    const domains: LocusDomains[] = [];
    for (const { evidence, called, table } of this.loci) {
      evidence.likelihood = animals ? called.map((place, i) => (animals.has(i) ? place : 0)) : called;
      const { ties, pedigree } = this;
      const narrowed = narrowDomains({
        ties,
        evidence,
        table,
        sireOpen: open,
        unrecorded: pedigree.unrecorded,
      });
      if (!narrowed.possible) return false;
      domains.push(narrowed);
    }
    const factors = this.loci.flatMap(({ evidence, table }, l) =>
      new LocusModelBuilder({
        ties: this.ties,
        evidence,
        table,
        domains: domains[l]!,
        sireOpen: open,
        unrecorded: this.pedigree.unrecorded,
        locus: l,
      })
        .build()
        .factors.map((factor) => (this.splitSex ? withOwnSex(factor, l) : factor)),
    );
    return groupFactors(factors).every((group) => logTotal(toComponent(group)) > -Infinity);
  }
}

/** Renames the sex variables of one locus, so that no other locus shares them. */
function withOwnSex(factor: Factor, locus: number): Factor {
  const isSex = (variable: number): boolean => variable < 0 && variable % 2 === 0;
  return { ...factor, scope: factor.scope.map((v) => (isSex(v) ? v - (locus + 1) * 2 ** 30 : v)) };
}

/** Whether all calls at these loci can be true together. */
export function holdsTogether(
  pedigree: Pedigree,
  loci: readonly string[],
  options: { splitSex?: boolean } = {},
): boolean {
  return new ConsistencyCheck(pedigree, loci, options).holds();
}
