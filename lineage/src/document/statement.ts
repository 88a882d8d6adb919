import { parsePedigree, InputError, type Genotype, type Pedigree } from '@karyotome/core';
import Joi from 'joi';
import { envelope, type Envelope, type Signed } from './envelope.ts';
import { day, object, refusal, shaped, urn } from './fields.ts';

/** What is claimed of one animal on a day, with the pedigree and the records that it rests on. */

export const STATEMENT_FORMAT = 'karyotome-lineage/1';
export const CLAIM_KINDS = ['visual', 'double', 'sure-carrier', 'possible-carrier', 'excluded'] as const;

export interface StatedClaim {
  readonly animal: string;
  readonly locus: string;
  readonly kind: (typeof CLAIM_KINDS)[number];
  readonly genotypes: readonly Genotype[];
  /** The probability that the genotype is one of `genotypes`, given the document's pedigree alone. */
  readonly p: number;
  readonly words: string;
}

export interface Evidence {
  readonly animal: string;
  readonly locus: string;
  readonly kind: string;
  readonly on?: string;
  readonly sure?: string;
  readonly words: string;
}

export interface ClaimChange {
  readonly locus: string;
  readonly from: string;
  readonly to: string;
  readonly on: string;
  readonly because: string;
}

export interface StatedPicture {
  readonly file: string;
  readonly mediaType: string;
  readonly takenOn?: string;
  /** Multibase base58-btc of a sha2-256 multihash. */
  readonly digestMultibase: string;
}

export interface StatementSubject {
  readonly id: string;
  readonly format: typeof STATEMENT_FORMAT;
  /** Counts the statements of this animal, from 1. */
  readonly statement: number;
  /** The id of the statement before; left out in the first. */
  readonly previous?: string;
  readonly asOf: string;
  readonly number: string;
  readonly name?: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly hatchedOn?: string;
  /** A `karyotome-pedigree/1` document. */
  readonly pedigree: object;
  /** The animals that are named: id -> number or name. */
  readonly named: Readonly<Record<string, string>>;
  readonly evidence: readonly Evidence[];
  readonly claims: readonly StatedClaim[];
  readonly changes?: readonly ClaimChange[];
  readonly cautions?: readonly string[];
  readonly pictures?: readonly StatedPicture[];
}

export type Statement = Signed<Envelope<StatementSubject>>;

const claim = object<StatedClaim>({
  animal: Joi.string(),
  locus: Joi.string(),
  kind: Joi.valid(...CLAIM_KINDS),
  genotypes: Joi.array().items(Joi.array().items(Joi.string()).length(2)).min(1),
  p: Joi.number().min(0).max(1),
  words: Joi.string(),
});

const subject = object<StatementSubject>({
  id: urn(),
  format: Joi.valid(STATEMENT_FORMAT),
  statement: Joi.number().integer().min(1),
  previous: urn().optional(),
  asOf: day(),
  number: Joi.string(),
  name: Joi.string().optional(),
  sex: Joi.valid('female', 'male', 'unknown'),
  hatchedOn: day().optional(),
  pedigree: Joi.object().unknown(true),
  named: Joi.object().pattern(Joi.string(), Joi.string()),
  evidence: Joi.array().items(
    object<Evidence>({
      animal: Joi.string(),
      locus: Joi.string(),
      kind: Joi.string(),
      on: day().optional(),
      sure: Joi.string().optional(),
      words: Joi.string(),
    }),
  ),
  claims: Joi.array().items(claim),
  changes: Joi.array()
    .items(
      object<ClaimChange>({
        locus: Joi.string(),
        from: Joi.string(),
        to: Joi.string(),
        on: day(),
        because: Joi.string(),
      }),
    )
    .optional(),
  cautions: Joi.array().items(Joi.string()).optional(),
  pictures: Joi.array()
    .items(
      object<StatedPicture>({
        file: Joi.string(),
        mediaType: Joi.string(),
        takenOn: day().optional(),
        digestMultibase: Joi.string(),
      }),
    )
    .optional(),
});

const schema = envelope(subject, 'LineageCredential');

/** The format that a document says it has; null where it says none. */
export function formatOf(document: unknown): unknown {
  const fields = (document ?? {}) as { credentialSubject?: { format?: unknown } | null };
  return fields.credentialSubject?.format ?? null;
}

/**
 * Reads a statement, checked through and through but for its signature and its probabilities.
 *
 * @param document - whatever JSON held
 * @throws InputError naming the first field at fault
 */
export function readStatement(document: unknown): { statement: Statement; pedigree: Pedigree } {
  const statement = shaped(schema, document);
  const { credentialSubject } = statement;
  const pedigree = pedigreeOf(credentialSubject);
  checkReferences(credentialSubject, pedigree);
  return { statement, pedigree };
}

const SUBJECT = 'credentialSubject';

function pedigreeOf({ pedigree }: StatementSubject): Pedigree {
  try {
    return parsePedigree(pedigree);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    throw new InputError(
      error.issues.map((issue) => ({ ...issue, path: `${SUBJECT}.pedigree.${issue.path}` })),
    );
  }
}

function checkReferences({ id, named, claims, evidence }: StatementSubject, pedigree: Pedigree): void {
  const animals = new Set(pedigree.animals.map((animal) => animal.id));
  const loci = new Map(pedigree.loci.map((locus) => [locus.id, new Set(['+', ...locus.alleles])]));
  const needAnimal = (animal: string, path: string): void => {
    if (!animals.has(animal)) throw refusal(path, `names ${animal}, which is not in the pedigree`);
  };
  needAnimal(id, `${SUBJECT}.id`);
  if (!Object.hasOwn(named, id)) throw refusal(`${SUBJECT}.named`, 'does not name the animal itself');
  Object.keys(named).forEach((animal) => needAnimal(animal, `${SUBJECT}.named`));
  evidence.forEach(({ animal }, i) => needAnimal(animal, `${SUBJECT}.evidence.${i}.animal`));
  claims.forEach(({ animal, locus, genotypes }, i) => {
    const path = `${SUBJECT}.claims.${i}`;
    needAnimal(animal, `${path}.animal`);
    const alleles = loci.get(locus);
    if (!alleles) throw refusal(`${path}.locus`, `names ${locus}, which is not in the pedigree`);
    const unknown = genotypes.flat().find((allele) => !alleles.has(allele));
    if (unknown !== undefined)
      throw refusal(`${path}.genotypes`, `name ${unknown}, which the locus ${locus} does not list`);
  });
}
