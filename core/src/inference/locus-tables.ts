import type { IndexedPedigree } from '../pedigree/index-pedigree.ts';
import { settledCell, type DomainTable } from './domain-table.ts';
import type { LocusDomains } from './domains.ts';
import type { LocusEvidence } from './evidence.ts';
import { PairTables } from './pair-tables.ts';
import { Transmission, type ParentTransmission } from './transmission.ts';

/** What the factors of one locus are made from. */
export interface LocusSource {
  readonly ties: IndexedPedigree;
  readonly evidence: LocusEvidence;
  readonly table: DomainTable;
  readonly domains: Pick<LocusDomains, 'place' | 'live'>;
  /** Frequency of each listed allele in an unrecorded parent. */
  readonly unrecorded: number;
}

/** The tables over an animal's pairs of alleles, and over what its parents transmit, at one locus. */
export class LocusTables {
  readonly ties: IndexedPedigree;
  readonly evidence: LocusEvidence;
  readonly pairs: PairTables;
  readonly transmission: Transmission;
  readonly place: Int32Array;
  readonly linked: boolean;

  constructor(source: LocusSource) {
    this.ties = source.ties;
    this.evidence = source.evidence;
    this.place = source.domains.place;
    this.pairs = new PairTables({ ...source, place: source.domains.place });
    this.transmission = new Transmission(source.evidence, source.unrecorded);
    this.linked = source.evidence.locus.sexLinked === true;
  }

  /** Number of ordered pairs of alleles. */
  get cells(): number {
    return this.evidence.alleles.length ** 2;
  }

  /** Through which place of its sire an animal has its allele; null where its sex decides that, and is open. */
  way(child: number, sire: ParentTransmission): number | null {
    return this.transmission.way(this.ties.sex[child]!, sire);
  }

  /** The cell of the pair that young of a settled animal see. */
  settledCell(i: number): number {
    return settledCell(this.pairs.domain(i), this.ties.sex[i]!, this.linked);
  }

  /** Of an animal whose parents' pairs are settled. */
  bredTable(i: number, mother: ParentTransmission, father: ParentTransmission): Float64Array {
    return this.pairs.ofBred(
      i,
      mother.alleleChances[0]![0]!,
      father.alleleChances[this.way(i, father) ?? 0]![0]!,
    );
  }
}
