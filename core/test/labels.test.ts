import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { canonicalLabel, parseGenes, type ParsedGenes } from '../src/index.ts';

/* Labels as breeders write them, each with what it says: `labels.txt`. */

const LINES = readFileSync(join(import.meta.dirname, 'labels.txt'), 'utf8')
  .split('\n')
  .filter((line) => line !== '' && !line.startsWith('#'))
  .map((line): [string, string] => line.split(' => ') as [string, string]);

const TRADE: Readonly<Record<string, number>> = { '66': 2 / 3, '33': 1 / 3 };

/** A reading in the words of the file, sorted. */
function told(reading: ParsedGenes): string[] {
  const genotypes = [...reading.loci].flatMap(([id, all]) => {
    if (reading.either.has(id)) return [`either:${reading.either.get(id)!.join()}`];
    const [named] = all.filter(({ genotype }) => genotype.some((allele) => allele !== '+'));
    const pair = named!.genotype.join('/');
    if (all.length === 1) return [pair];
    const trade = Object.entries(TRADE).find(([, p]) => Math.abs(p - named!.p) < 1e-9)?.[0];
    return [`${pair}@${trade ?? Number((100 * named!.p).toFixed(4))}`];
  });
  const hets = new Set(reading.possibleHets);
  return [
    ...genotypes,
    ...reading.possible.map((allele) => `${hets.has(allele) ? 'ph' : 'possible'}:${allele}`),
    ...[...reading.phases].map(([id, phase]) => `${phase === 'male-maker' ? 'mm' : 'fm'}:${id}`),
    ...(reading.isNormal ? ['normal'] : []),
    ...reading.unknown.map(({ word }) => `ask:${word}`),
  ].toSorted();
}

function expected(text: string): string[] {
  const [known = '', asked] = text.split(/(?:^| )ask:/);
  return [
    ...known.split(' ').filter((word) => word !== ''),
    ...(asked === undefined ? [] : [`ask:${asked}`]),
  ].toSorted();
}

describe('labels in the styles of the trade', () => {
  test('there are 500 of them', () => {
    expect(LINES.length).toBeGreaterThanOrEqual(500);
  });

  test.each(LINES)('%s => %s', (label, says) => {
    const reading = parseGenes(label);
    expect(told(reading)).toEqual(expected(says));
    if (reading.unknown.length > 0) return;
    // The label that is written back says the same.
    const back = parseGenes(canonicalLabel(reading));
    expect(told({ ...back, isNormal: reading.isNormal })).toEqual(told(reading));
  });
});
