import { describe, expect, test } from 'vitest';
import { hatching, newAnimal, newLadder, newPairing, newRecord, validate } from './index.ts';
import type Joi from 'joi';

const fields = (schema: Joi.Schema, input: unknown): string[] => {
  const result = validate(schema, input);
  return result.ok ? [] : result.problems.map((problem) => `${problem.field}: ${problem.message}`);
};
const uuid = '0e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10';

describe('requests name every broken field', () => {
  test('missing, wrong type, out of range, unknown', () => {
    expect(fields(newAnimal, { sex: 'girl', massG: '70', colour: 'brown' })).toEqual([
      'number: is missing',
      'sex: must be one of female, male, unknown',
      'massG: must be a number',
      'colour: is not a known field',
    ]);
    expect(fields(newAnimal, { number: '1', sex: 'female', massG: 50_000 })).toEqual([
      'massG: must be at most 20000',
    ]);
  });

  test('a day must exist and not lie in the future', () => {
    expect(fields(newAnimal, { number: '1', sex: 'male', hatchedOn: '2026-02-30' })).toEqual([
      'hatchedOn: must be a day that exists, written YYYY-MM-DD',
    ]);
    expect(fields(hatching, { hatchedOn: '2999-01-01', hatched: 4 })).toEqual([
      'hatchedOn: lies in the future',
    ]);
  });

  test('five megabytes of text are too long, and a NUL cannot be stored', () => {
    expect(fields(newAnimal, { number: '1', sex: 'male', note: 'x'.repeat(5_000_000) })).toEqual([
      'note: is too long: at most 2000 characters',
    ]);
    expect(fields(newAnimal, { number: 'a\u0000b', sex: 'male' })).toEqual([
      'number: holds characters that cannot be stored',
    ]);
  });

  test('the same sire twice is one too many', () => {
    const sire = { animalId: uuid, weight: 1 };
    expect(
      fields(newPairing, { season: 2026, damId: uuid, sires: [sire, sire], startedOn: '2026-01-01' }),
    ).toEqual(['sires.1: names the same one twice']);
  });

  test('a record is judged by its kind', () => {
    expect(fields(newRecord, { kind: 'weight', on: '2026-01-01', body: { massG: 0 } })).toEqual([
      'body.massG: must be at least 1',
    ]);
    expect(fields(newRecord, { kind: 'shed', on: '2026-01-01', body: { massG: 70 } })).toEqual([
      'body.stage: is missing',
      'body.massG: is not a known field',
    ]);
    expect(fields(newRecord, { kind: 'weight', on: '2026-01-01', body: { massG: 71.5 } })).toEqual([]);
  });

  test('a ladder step ends above where it starts', () => {
    const step = { name: 'Tub', minG: 300, maxG: 200, inside: '' };
    expect(fields(newLadder, { name: 'Mine', steps: [step] })).toEqual([
      'steps.0.maxG: must be more than the weight it starts from',
    ]);
  });
});
