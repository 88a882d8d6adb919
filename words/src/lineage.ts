import type { Eye, StatedFact, TakeInConflicts, Trust } from '@karyotome/contract';
import type { Fact } from '@karyotome/core';
import type { Problem, Problems } from '@karyotome/lineage';
import { say, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';

const PROBLEMS: Phrases<Problems> = {
  'signature-missing': () => 'It is not signed.',
  'signature-invalid': () =>
    'The signature does not match: it was changed since, or this key never signed it.',
  'other-signer': ({ issuer }) => `It is signed by another key than the issuer's, ${issuer}.`,
  'other-kind-of-proof': () => 'Its signature is of another kind than eddsa-jcs-2022.',
  'claim-does-not-follow': ({ words, p, derived }, reader) =>
    derived === null
      ? `"${words}" cannot be derived from the pedigree in the document.`
      : `"${words}" is claimed with ${reader.percent(p, 4)}; the pedigree in the document gives ${reader.percent(derived, 4)}.`,
  'claim-overstated': ({ words }) => `"${words}" says more than its genotypes and its probability allow.`,
  'records-contradict': ({ locus, animals }, reader) =>
    `The records at ${locus} cannot all be true: ${reader.list(animals)}.`,
  'too-wide-to-derive': () => 'The pedigree is too wide to be computed exactly here.',
  'previous-missing': ({ statement }, reader) =>
    `Statement ${reader.number(statement)} does not name the one before.`,
  'previous-unexpected': ({ statement }, reader) =>
    `Statement ${reader.number(statement)} is the first, but names one before.`,
  'other-animal': ({ file }) => `${file} is a statement of another animal.`,
  'earlier-signature-invalid': ({ file }) => `The signature of ${file} does not hold.`,
  'statement-not-earlier': ({ statement }, reader) =>
    `Statement ${reader.number(statement)} is among the earlier ones, but is not earlier.`,
  'statement-twice': ({ statement }, reader) => `There are two statements ${reader.number(statement)}.`,
  'statement-absent': ({ statement }, reader) => `Statement ${reader.number(statement)} is missing.`,
  'previous-differs': ({ statement }, reader) =>
    `Statement ${reader.number(statement)} follows another one than the earlier one that came with it.`,
  'earlier-than-previous': ({ statement }, reader) =>
    `Statement ${reader.number(statement)} is dated before the one that it follows.`,
  'key-not-succeeded': ({ statement }, reader) =>
    `Statement ${reader.number(statement)} is signed by a key that the key before did not introduce.`,
  'key-was-replaced': ({ statement, on }, reader) =>
    `Statement ${reader.number(statement)} is signed by a key that was replaced on ${reader.day(on)}.`,
  'succession-invalid': ({ file }) => `${file} introduces a key, but the key before did not sign that.`,
  'key-replaced-twice': ({ file }) => `${file} replaces a key that was replaced by another one already.`,
  'file-missing': ({ file }) => `${file} is missing.`,
  'file-changed': ({ file }) => `${file} was changed.`,
  'file-not-listed': ({ file }) => `${file} is not listed in the package.`,
  'file-listed-twice': ({ file }) => `${file} is listed twice, with two checksums.`,
};

/** Why a lineage document or a package does not hold. */
export const tellProblem = (problem: Problem, reader: Reader): string => say(PROBLEMS, problem, reader);

/** What a change of claims begins with, or ends in, where nothing is claimed. */
export const NOT_CLAIMED = 'not claimed';

const STATED: Readonly<Record<StatedFact, string>> = {
  number: 'its number',
  name: 'its name',
  sex: 'its sex',
  hatchedOn: 'when it hatched',
  cautions: 'the cautions of its genes',
  pictures: 'its pictures',
};

/** What besides the claims is another by now than it was signed. */
export const tellStatedFacts = (facts: readonly StatedFact[], reader: Reader): string =>
  `Other than signed: ${reader.list(facts.map((fact) => STATED[fact]))}.`;

/** A gene that was looked for and not seen. */
export const withoutGene = (name: string): string => `not ${name}`;

/** Evidence of a change: what was seen or stated, and on whom, where that one is named. */
interface SpokenEvidence {
  readonly locus: string;
  readonly words: string;
  readonly name: string | null;
}

/** So much evidence is named in one change. */
const MOST_NAMED = 3;

/**
 * Why a claim changed: the evidence at its locus that is new, or else that was withdrawn.
 *
 * @returns the words for a locus
 */
export function becauseOf(
  added: readonly SpokenEvidence[],
  withdrawn: readonly SpokenEvidence[],
): (locus: string) => string {
  const list = (evidence: readonly SpokenEvidence[]): string => {
    const told = evidence.slice(0, MOST_NAMED).map(({ words, name }) => `${name ?? 'a relative'}: ${words}`);
    const more = evidence.length - told.length;
    return [...told, ...(more > 0 ? [`${more} more`] : [])].join('; ');
  };
  return (locus) => {
    const at = (evidence: readonly SpokenEvidence[]) => evidence.filter((one) => one.locus === locus);
    if (at(added).length > 0) return list(at(added));
    if (at(withdrawn).length > 0) return `withdrawn: ${list(at(withdrawn))}`;
    return 'other records of its relatives';
  };
}

const CONFLICTS: Phrases<TakeInConflicts> = {
  'other-sex': ({ number, here, there }) => `${number} is ${here} here, and ${there} in the statement.`,
  'other-hatch-date': ({ number, here, there }, reader) =>
    `${number} hatched on ${reader.day(here)} here, and on ${reader.day(there)} in the statement.`,
  'other-dam': ({ number }) => `${number} has another dam in the statement.`,
  'other-sires': ({ number }) => `${number} has another sire in the statement.`,
  'records-contradict': ({ locus, numbers }, reader) =>
    `With your records these cannot all be true at ${locus}: ${reader.list(numbers)}.`,
  'gene-unknown': ({ locus }) => `Your catalogue does not know ${locus}: what is said of it is left out.`,
};

/** What speaks against taking in a statement. */
export const tellTakeInConflict = (conflict: Fact<keyof TakeInConflicts>, reader: Reader): string =>
  say(CONFLICTS, conflict, reader);

/** How far another breeder's word counts. */
export const TRUST_WORDS: Readonly<Record<Trust, string>> = {
  certain: 'As sure as their records',
  probable: 'Probably right',
  possible: 'Possibly right',
  ignored: 'Not at all',
};

/** Whose eye a claim rests on, without a name. */
export const EYE_WORDS: Readonly<Record<Eye, string>> = {
  own: 'seen by the breeder',
  'other-breeder': 'stated by another breeder',
};
