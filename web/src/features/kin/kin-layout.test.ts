import type { KinNodeView } from '@karyotome/contract';
import { describe, expect, test } from 'vitest';
import { evidencePath, layOutKin } from './kin-layout.ts';

const animal = (id: string, dam: string | null = null, sires: [string, number][] = []): KinNodeView => ({
  id,
  number: id,
  name: null,
  sex: 'unknown',
  label: '',
  died: false,
  dam,
  sires: sires.map(([sire, p]) => ({ id: sire, p })),
  relationship: 0,
  inbreeding: 0,
  gene: null,
});
const family = [
  animal('D'),
  animal('S'),
  animal('T'),
  animal('A', 'D', [['S', 1]]),
  animal('B', 'D', [['S', 1]]),
  animal('C', 'A', [['B', 1]]),
  animal('X', 'D', [
    ['S', 0.25],
    ['T', 0.75],
  ]),
];

describe('a kin chart', () => {
  test('draws parents above their young, siblings on one line, and each mating once', () => {
    const { animals, families } = layOutKin(family);
    const y = new Map(animals.map((one) => [one.animal.id, one.y]));
    expect(y.get('D')).toBeLessThan(y.get('A')!);
    expect(y.get('A')).toBe(y.get('B'));
    expect(y.get('B')).toBeLessThan(y.get('C')!);
    expect(families.find(({ parents, p }) => parents.join() === 'D,S' && p === 1)!.young).toEqual(['A', 'B']);
  });

  test('doubles the line between relatives, and breaks it for one of several sires', () => {
    const { families } = layOutKin(family);
    expect(families.find(({ young }) => young.includes('C'))!.related).toBe(true);
    expect(families.find(({ young }) => young.includes('A'))!.related).toBe(false);
    expect(families.filter(({ young }) => young.includes('X')).map(({ p }) => p)).toEqual([0.25, 0.75]);
  });

  test('the evidence path runs along descent, to every animal a claim rests on', () => {
    expect(evidencePath(family, 'C', ['D'])).toEqual(new Set(['C', 'A', 'D']));
    expect(evidencePath(family, 'D', [])).toEqual(new Set());
    expect(evidencePath(family, 'D', ['nobody'])).toEqual(new Set());
  });
});
