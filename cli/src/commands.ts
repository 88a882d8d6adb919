import {
  CATALOGUE,
  canonicalLabel,
  createEstimator,
  infer,
  pairingOutcomes,
  parseGenes,
  parseParent,
  parsePedigree,
  possibleChance,
  targetOdds,
  type ParsedGenes,
  type Posterior,
} from '@karyotome/core';
import { unreadWords } from '@karyotome/words';
import {
  fileArgument,
  options,
  refusing,
  UsageError,
  type CommandResult,
  type ReadFile,
} from './arguments.ts';
import { verify } from './verify.ts';

const HELP = `karyotome odds --sire TEXT --dam TEXT [--target TEXT] [--eggs N] [--top K] [--json]
karyotome parse TEXT [--json]
karyotome infer FILE [--json]     (- reads standard input)
karyotome verify FILE [--json]`;

/** Without `--top`, and with it: so many outcomes are written at most. Many genes make millions. */
const MOST_LISTED = 10_000;
const MOST_ASKED_FOR = 100_000;

/** Runs one command line. `read` fetches a file's bytes. */
export async function runCommand(args: readonly string[], read: ReadFile): Promise<CommandResult> {
  const [command, ...rest] = args;
  if (command === 'odds') return odds(rest);
  if (command === 'parse') return parse(rest);
  if (command === 'infer') return inferFile(rest, read);
  if (command === 'verify') return verify(rest, read);
  throw new UsageError(`command: ${command === undefined ? 'is missing' : 'is not known'}\n${HELP}`);
}

function genes(field: string, text: unknown): string {
  if (typeof text !== 'string' || text.trim() === '') throw new UsageError(`${field}: is missing`);
  refuseUnknown(field, parseGenes(text));
  return text;
}

function refuseUnknown(field: string, parsed: ParsedGenes): void {
  const [unknown] = parsed.unknown;
  if (unknown) throw new UsageError(`${field}: ${unreadWords(unknown)}`);
}

function wholeNumber(field: string, text: unknown): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > 1_000_000)
    throw new UsageError(`${field}: must be a whole number of 1 or more`);
  return value;
}

function odds(args: readonly string[]): CommandResult {
  const { values } = options(args, ['sire', 'dam', 'target', 'eggs', 'top']);
  const parents = {
    sire: parseParent(genes('sire', values['sire']), 'male'),
    dam: parseParent(genes('dam', values['dam']), 'female'),
  };
  const sire = parents.sire.parent;
  const dam = parents.dam.parent;
  const eggs = wholeNumber('eggs', values['eggs']);
  const top = wholeNumber('top', values['top']);
  const listed = pairingOutcomes(sire, dam, Math.min(top ?? MOST_LISTED, MOST_ASKED_FOR));
  const target =
    values['target'] === undefined
      ? undefined
      : targetOdds(sire, dam, parseGenes(genes('target', values['target'])), eggs);
  const assumed = assumptions(parents);
  const answer = {
    ...listed,
    ...(target ? { target } : {}),
    ...(assumed.length > 0 ? { assumed } : {}),
  };
  if (values['json']) return { output: JSON.stringify(answer), code: 0 };
  const percent = (p: number): string => `${(p * 100).toFixed(2)}%`.padStart(9);
  const hatched = (p: number | undefined): string =>
    p === undefined ? '' : `${percent(p)} of those that live`;
  const lines = listed.outcomes.map((o) => `${percent(o.p)}${hatched(o.pHatched)}  ${o.label}`);
  if (listed.total < 1 - 1e-9)
    lines.push('', `the ${listed.outcomes.length} listed cover ${percent(listed.total).trim()}`);
  if (target) lines.push('', `target per egg ${percent(target.p).trim()}${hatched(target.pHatched)}`);
  if (target?.atLeastOne !== undefined)
    lines.push(`at least one in ${eggs} eggs ${percent(target.atLeastOne).trim()}`);
  for (const { parent, allele, p } of assumed)
    lines.push(
      `assumed: the ${parent} has the possible ${CATALOGUE.alleleName(allele)} with ${percent(p).trim()}`,
    );
  return { output: lines.join('\n'), code: 0 };
}

/** What is only possible counts with a chance that no text gives: which one was taken. */
function assumptions(
  parents: Readonly<Record<'sire' | 'dam', { readonly parsed: ParsedGenes }>>,
): { parent: 'sire' | 'dam'; allele: string; p: number }[] {
  return (['sire', 'dam'] as const).flatMap((parent) => {
    const { parsed } = parents[parent];
    return parsed.possible.map((allele) => ({ parent, allele, p: possibleChance(parsed, allele) }));
  });
}

function parse(args: readonly string[]): CommandResult {
  const { values, positionals } = options(args, []);
  const [text] = positionals;
  if (text === undefined || positionals.length > 1)
    throw new UsageError('text: give the words as one argument');
  const parsed = parseGenes(text);
  const answer = {
    loci: Object.fromEntries(parsed.loci),
    possible: parsed.possible,
    label: canonicalLabel(parsed),
    unknown: parsed.unknown.map((unknown) => unknown.word),
  };
  const output = values['json']
    ? JSON.stringify(answer)
    : [answer.label, ...parsed.unknown.map((unknown) => `not read: ${unreadWords(unknown)}`)].join('\n');
  return { output, code: parsed.unknown.length > 0 ? 2 : 0 };
}

function inferFile(args: readonly string[], read: ReadFile): CommandResult {
  const { bytes, isJson } = fileArgument(args, read);
  let document: unknown;
  try {
    document = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new UsageError('document: is not JSON');
  }
  const posterior = infer(
    refusing(() => parsePedigree(document)),
    createEstimator(),
  );
  return {
    output: isJson ? JSON.stringify(toDocument(posterior)) : toTable(posterior),
    code: posterior.conflicts.length > 0 ? 1 : 0,
  };
}

/** The answer as `karyotome-posterior/1`. */
function toDocument({ exact, logLikelihood, animals, sires, female, conflicts }: Posterior): unknown {
  return {
    format: 'karyotome-posterior/1',
    exact,
    logLikelihood,
    animals: Object.fromEntries([...animals].map(([id, loci]) => [id, Object.fromEntries(loci)])),
    sires: Object.fromEntries([...sires].map(([id, odds]) => [id, Object.fromEntries(odds)])),
    sex: Object.fromEntries([...female].map(([id, p]) => [id, { female: p, male: 1 - p }])),
    conflicts: conflicts.map(({ locus, animals: set }) => ({ locus, animals: set })),
  };
}

function toTable({ exact, logLikelihood, animals, sires, female, conflicts }: Posterior): string {
  const percent = (p: number): string => `${(p * 100).toFixed(2)}%`.padStart(8);
  const lines = [...animals].flatMap(([id, loci]) =>
    [...loci].flatMap(([locus, genotypes]) =>
      genotypes.map(({ genotype, p, se }) => {
        const error = se === undefined ? '' : ` +- ${(se * 100).toFixed(2)}`;
        return `${percent(p)}${error}  ${id}  ${locus}  ${genotype.join('/')}`;
      }),
    ),
  );
  for (const [id, odds] of sires)
    for (const [sire, p] of odds) lines.push(`${percent(p)}  ${id}  sired by ${sire}`);
  for (const [id, p] of female) lines.push(`${percent(p)}  ${id}  female`);
  for (const { locus, animals: set } of conflicts) lines.push(`conflict at ${locus}: ${set.join(', ')}`);
  lines.push(logLikelihood === null ? 'the calls cannot all be true' : `log-likelihood ${logLikelihood}`);
  if (!exact) lines.push('too wide to be exact: estimates, with standard errors');
  return lines.join('\n');
}
