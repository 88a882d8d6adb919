import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { infer } from '../inference/infer.ts';
import { parsePedigree } from './parse-document.ts';
import { writePlink } from './write-plink.ts';

/* Judged by PLINK 1.9 itself (Chang et al. 2015, GigaScience 4:7; Debian's plink1.9). */

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'karyotome-plink-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const PLINK = '/usr/bin/plink1.9';
const known = (...genotype: [string, string]): object[] => [{ genotype, p: 1 }];
/** The call of one animal at one locus. */
const sees = (locus: string, ...genotype: [string, string]): object => ({ locus, is: [genotype], error: 0 });

const FAMILY = parsePedigree({
  format: 'karyotome-pedigree/1',
  loci: [
    { id: 'clown', alleles: ['clown'] },
    { id: 'yb', alleles: ['yellow-belly', 'asphalt'] },
    { id: 'banana', alleles: ['banana'], sexLinked: true, recombination: 0.07 },
  ],
  animals: [
    {
      id: 'f',
      sex: 'female',
      founder: { clown: known('+', 'clown'), yb: known('asphalt', 'yellow-belly') },
    },
    { id: 'm', sex: 'male', founder: { clown: known('+', 'clown'), banana: known('banana', '+') } },
    { id: 'm2', sex: 'male' },
    { id: 'a', sex: 'male', dam: 'f', sires: [{ id: 'm' }], calls: [sees('clown', 'clown', 'clown')] },
    { id: 'b', sex: 'female', dam: 'f', sires: [{ id: 'm' }], calls: [sees('clown', '+', '+')] },
    { id: 'c', sex: 'unknown', dam: 'f', sires: [{ id: 'm' }, { id: 'm2' }] },
  ],
});
const posterior = infer(FAMILY);
const nameOf = (id: string): string => `Farm ${id === 'c' ? 'a' : id}`;

/** Writes the family, runs PLINK on it, and returns what it said and the file that it made. */
function plink(args: readonly string[], made: string): { log: string; table: string[][] } {
  const files = writePlink(FAMILY, (id) => posterior.animals.get(id)!, nameOf);
  for (const [ending, text] of Object.entries(files)) writeFileSync(join(folder, `family.${ending}`), text);
  const out = join(folder, 'out');
  const log = execFileSync(PLINK, ['--file', join(folder, 'family'), ...args, '--out', out], {
    encoding: 'utf8',
  });
  const lines = readFileSync(`${out}.${made}`, 'utf8').trim().split('\n');
  return { log, table: lines.map((line) => line.trim().split(/\s+/)) };
}

test('PLINK reads it, and finds no Mendelian error', () => {
  const { log, table } = plink(['--mendel'], 'lmendel');
  expect(log).toContain('4 variants loaded from .bim file.');
  expect(table.slice(1).map((row) => row.at(-1))).toEqual(['0', '0', '0', '0']);
});

test('PLINK counts the copies that are certain, and misses those that are not', () => {
  const { table } = plink(['--freq', 'counts', '--nonfounders'], 'frq.counts');
  const of = new Map(
    table.slice(1).map(([, variant, first, , count]) => [variant, { allele: first, count: Number(count) }]),
  );
  // One in each parent, two in "a", none in "b"; what "c" has is open, and of the other male none is stated.
  const copies = (variant: string): number => {
    const { allele, count } = of.get(variant)!;
    const row = table.find(([, name]) => name === variant)!;
    return allele === 'M' ? count : Number(row[5]);
  };
  expect(copies('clown')).toBe(4);
  // Each allele of the compound is a variant; in the young either may be.
  expect(copies('yb:asphalt')).toBe(1);
  expect(copies('yb:yellow-belly')).toBe(1);
  expect(copies('banana')).toBe(1);
});

test('names without white space, parents, sexes; of several fathers none', () => {
  const { fam } = writePlink(FAMILY, (id) => posterior.animals.get(id)!, nameOf);
  expect(fam.trim().split('\n')).toEqual([
    '1 Farm_f 0 0 2 -9',
    '1 Farm_m 0 0 1 -9',
    '1 Farm_m2 0 0 1 -9',
    '1 Farm_a_a Farm_m Farm_f 1 -9',
    '1 Farm_b Farm_m Farm_f 2 -9',
    '1 Farm_a_c 0 Farm_f 0 -9',
  ]);
});
