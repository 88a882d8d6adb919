import { parseArgs } from 'node:util';
import {
  canonicalLabel,
  createEstimator,
  infer,
  InputError,
  pairingOutcomes,
  parseGenes,
  parseParent,
  parsePedigree,
  targetOdds,
  type ParsedGenes,
  type Posterior,
} from '@karyotome/core';

/** Bad input: one line that names the field at fault; exit code 2. */
export class UsageError extends Error {}

export interface CommandResult {
  readonly output: string;
  /** 0 success, 1 the answer is "no", 2 bad input. */
  readonly code: 0 | 1 | 2;
}

const HELP = `karyotome odds --sire TEXT --dam TEXT [--target TEXT] [--eggs N] [--top K] [--json]
karyotome parse TEXT [--json]
karyotome infer FILE [--json]     (- reads standard input)`;

/** Runs one command line. `read` fetches a file's text. */
export function runCommand(args: readonly string[], read: (path: string) => string): CommandResult {
  const [command, ...rest] = args;
  if (command === 'odds') return odds(rest);
  if (command === 'parse') return parse(rest);
  if (command === 'infer') return inferFile(rest, read);
  throw new UsageError(`command: ${command === undefined ? 'is missing' : 'is not known'}\n${HELP}`);
}

function options(
  args: readonly string[],
  names: readonly string[],
): { values: Record<string, string | boolean | undefined>; positionals: string[] } {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        json: { type: 'boolean' },
        ...Object.fromEntries(names.map((name) => [name, { type: 'string' as const }])),
      },
    }) as never;
  } catch (error) {
    throw new UsageError(`options: ${(error as Error).message.split('\n')[0]}`);
  }
}

function genes(field: string, text: unknown): string {
  if (typeof text !== 'string' || text.trim() === '') throw new UsageError(`${field}: is missing`);
  refuseUnknown(field, parseGenes(text));
  return text;
}

function refuseUnknown(field: string, parsed: ParsedGenes): void {
  const [unknown] = parsed.unknown;
  if (!unknown) return;
  const hint = unknown.suggestions.length > 0 ? `; did you mean ${unknown.suggestions.join(', ')}?` : '';
  throw new UsageError(`${field}: "${unknown.word}" is ${unknown.reason}${hint}`);
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
  const sire = parseParent(genes('sire', values['sire']), 'male').parent;
  const dam = parseParent(genes('dam', values['dam']), 'female').parent;
  const eggs = wholeNumber('eggs', values['eggs']);
  const top = wholeNumber('top', values['top']);
  const listed = pairingOutcomes(sire, dam, top);
  const target =
    values['target'] === undefined
      ? undefined
      : targetOdds(sire, dam, parseGenes(genes('target', values['target'])), eggs);
  const answer = { ...listed, ...(target ? { target } : {}) };
  if (values['json']) return { output: JSON.stringify(answer), code: 0 };
  const percent = (p: number): string => `${(p * 100).toFixed(2)}%`.padStart(9);
  const lines = listed.outcomes.map((o) => `${percent(o.p)}  ${o.label}`);
  if (target) lines.push('', `target per egg ${percent(target.p).trim()}`);
  if (target?.atLeastOne !== undefined)
    lines.push(`at least one in ${eggs} eggs ${percent(target.atLeastOne).trim()}`);
  return { output: lines.join('\n'), code: 0 };
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
    : [answer.label, ...parsed.unknown.map((u) => `not read: ${u.word} (${u.reason})`)].join('\n');
  return { output, code: parsed.unknown.length > 0 ? 2 : 0 };
}

function inferFile(args: readonly string[], read: (path: string) => string): CommandResult {
  const { values, positionals } = options(args, []);
  const [path] = positionals;
  if (path === undefined || positionals.length > 1)
    throw new UsageError('file: give one file, or - for standard input');
  let document: unknown;
  try {
    document = JSON.parse(readText(path, read));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError('document: is not JSON');
  }
  const posterior = infer(checked(document), createEstimator());
  return {
    output: values['json'] ? JSON.stringify(toDocument(posterior)) : toTable(posterior),
    code: posterior.conflicts.length > 0 ? 1 : 0,
  };
}

function readText(path: string, read: (path: string) => string): string {
  try {
    return read(path);
  } catch {
    throw new UsageError(`file: ${path} cannot be read`);
  }
}

function checked(document: unknown): ReturnType<typeof parsePedigree> {
  try {
    return parsePedigree(document);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const [issue] = error.issues;
    throw new UsageError(`${issue!.path}: ${issue!.message}`.replaceAll(/\s+/g, ' '));
  }
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
