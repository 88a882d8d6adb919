import { newRecord, validate, type NewRecord, type Trust } from '@karyotome/contract';
import { statedOfAnimal, withAncestors, type Catalogue, type Pedigree } from '@karyotome/core';
import type { ReceivedAnimal } from '@karyotome/lineage';
import type { StatedBody } from '../../db/sale-rows.ts';
import { lastingId } from './lasting-id.ts';

/** How far a breeder's word counts who is not known yet. */
export const FIRST_TRUST: Trust = 'certain';

/** A relative, or the animal itself, as its statement has it, under the ids that they have here. */
export interface ReceivedRelative {
  readonly id: string;
  readonly named: string | null;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly isAncestor: boolean;
  readonly body: StatedBody;
}

export interface Received {
  readonly id: string;
  readonly relatives: readonly ReceivedRelative[];
  /** Loci that the catalogue here does not know. */
  readonly unknownLoci: readonly string[];
}

/** The id that the animal of a statement has here. */
export const idHere = ({ statement: { issuer, credentialSubject } }: ReceivedAnimal): string =>
  lastingId(issuer.id, credentialSubject.id);

/** Reads a statement's pedigree as evidence of each animal in it. */
export function readReceived({ statement, pedigree }: ReceivedAnimal, catalogue: Catalogue): Received {
  const { issuer, credentialSubject: subject } = statement;
  const idOf = (id: string): string => lastingId(issuer.id, id);
  const above = new Set(withAncestors(pedigree.animals, [subject.id]).map(({ id }) => id));
  const unknownLoci = new Set<string>();
  const relatives = (pedigree as Pedigree).animals.map((animal): ReceivedRelative => {
    const { stated, unknown } = statedOfAnimal(pedigree, animal, catalogue);
    unknown.forEach((locus) => unknownLoci.add(locus));
    return {
      id: idOf(animal.id),
      named: subject.named[animal.id] ?? null,
      sex: animal.id === subject.id ? subject.sex : animal.sex,
      isAncestor: animal.id !== subject.id && above.has(animal.id),
      body: {
        ...stated,
        ...(stated.dam === undefined ? {} : { dam: idOf(stated.dam) }),
        sires: stated.sires.map(({ id, weight }) => ({ id: idOf(id), weight })),
        evidence: subject.evidence
          .filter((one) => one.animal === animal.id)
          .map(({ animal: _, ...evidence }) => evidence),
      },
    };
  });
  return { id: idOf(subject.id), relatives, unknownLoci: [...unknownLoci] };
}

/** Husbandry records that came along and are valid here; the rest is left out. */
export function readRecords({ records }: Pick<ReceivedAnimal, 'records'>, today: string): NewRecord[] {
  const list = (records as { records?: unknown } | null)?.records;
  if (!Array.isArray(list)) return [];
  return list.flatMap((entry: unknown): NewRecord[] => {
    if (typeof entry !== 'object' || entry === null) return [];
    const { on, kind, ...rest } = entry as Record<string, unknown>;
    const body =
      kind === 'shed' ? { stage: 'shed', complete: rest['complete'] ?? null } : withoutUndefined(rest);
    const result = validate(newRecord, { kind, on, body }, { today });
    return result.ok ? [result.value] : [];
  });
}

const withoutUndefined = (fields: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
