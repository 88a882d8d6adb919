import { FEEDING_PLANS, FEEDING_RULES } from '@karyotome/core';
import type Joi from 'joi';
import { describe, expect, test } from 'vitest';
import {
  feedingRules,
  heatZoneInput,
  manyMoves,
  newRecord,
  newStockEntry,
  planInput,
  rackChange,
  roomAssumptions,
  roundEntries,
  roundEntry,
  surfaceCheck,
  validate,
} from './index.ts';

const fields = (schema: Joi.Schema, input: unknown): string[] => {
  const result = validate(schema, input);
  return result.ok ? [] : result.problems.map((problem) => `${problem.field}: ${problem.message}`);
};
const ID = '0e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10';
const OTHER = '1e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10';
const ON = '2026-06-01';

describe('what is built in is valid', () => {
  test('plans and rules', () => {
    expect(fields(feedingRules, FEEDING_RULES)).toEqual([]);
    for (const { id: _, ...plan } of FEEDING_PLANS) expect(fields(planInput, plan)).toEqual([]);
  });
});

describe('daily work names every broken field', () => {
  test('classes rise, and the last is open', () => {
    const classes = (...ends: (number | null)[]) => ({
      ...FEEDING_RULES,
      classes: ends.map((belowG) => ({ belowG, share: 0.1, everyDays: 7 })),
    });
    const wrong = 'classes: must rise from class to class, and the last has no upper end';
    expect(fields(feedingRules, classes(300, null))).toEqual([]);
    expect(fields(feedingRules, classes(300, 200, null))).toEqual([wrong]);
    expect(fields(feedingRules, classes(300))).toEqual([wrong]);
    expect(fields(feedingRules, classes())).toEqual(['classes: needs at least 1']);
    expect(fields(feedingRules, { ...FEEDING_RULES, fastMonths: [0, 13] })).toEqual([
      'fastMonths.0: must be at least 1',
      'fastMonths.1: must be at most 12',
    ]);
  });

  test('a step of a plan has a key of its own, words, and tries', () => {
    const { id: _, ...plan } = FEEDING_PLANS[0]!;
    const step = { key: 'a', name: 'A', tries: 1 };
    expect(fields(planInput, { ...plan, steps: [step, { ...step, name: 'B' }] })).toEqual([
      'steps.1: names the same one twice',
    ]);
    expect(fields(planInput, { ...plan, steps: [{ ...step, key: 'No Key', tries: 0 }] })).toEqual([
      'steps.0.key: takes small letters, digits and hyphens only',
      'steps.0.tries: must be at least 1',
    ]);
    expect(fields(planInput, { ...plan, steps: [{ ...step, change: { state: 'raw' } }] })).toEqual([
      'steps.0.change.state: must be one of live, frozen-thawed, fresh-killed',
    ]);
  });

  test('an entry of a round is a record, or takes one back', () => {
    const record = { kind: 'care', on: ON, body: { act: 'cleaned' } };
    const key = 'a-key-of-its-own';
    expect(fields(roundEntry, { key, animalId: ID, record })).toEqual([]);
    expect(fields(roundEntry, { key, undo: 'another-key' })).toEqual([]);
    expect(fields(roundEntry, { key, animalId: ID, record, undo: 'another-key' })).toEqual([
      ': takes one of record and undo, not both',
    ]);
    expect(fields(roundEntry, { key })).toEqual([': needs a record, or what it takes back']);
    expect(fields(roundEntry, { key, record })).toEqual([': needs the animal and the record together']);
    expect(
      fields(roundEntry, { key, animalId: ID, record: { ...record, body: { act: 'danced' } } }),
    ).toHaveLength(1);
    const one = { key, animalId: ID, record };
    expect(fields(roundEntries, { entries: [one, one] })).toEqual(['entries.1: names the same one twice']);
    // What is wrong inside an entry is the entry's own: the frame lets it through.
    expect(fields(roundEntries, { entries: [{ key, nonsense: 1 }] })).toEqual([]);
  });

  test('an animal moves once in an act', () => {
    const moves = [
      { animalId: ID, toTubId: OTHER },
      { animalId: ID, toTubId: null },
    ];
    expect(fields(manyMoves, { moves, reason: 'x', on: ON })).toEqual(['moves.1: names the same one twice']);
    expect(fields(manyMoves, { moves: [{ animalId: ID }], reason: '', on: ON })).toEqual([
      'moves.0.toTubId: is missing',
      'reason: is empty',
    ]);
  });

  test('stock counts whole pieces of prey that exists; nothing may be counted, but not received', () => {
    const entry = { prey: 'rat pup', kind: 'count', quantity: 0, on: ON };
    expect(fields(newStockEntry, entry)).toEqual([]);
    expect(fields(newStockEntry, { ...entry, kind: 'receipt' })).toEqual(['quantity: must be at least 1']);
    expect(fields(newStockEntry, { ...entry, prey: 'rat whale', quantity: 1.5 })).toHaveLength(2);
  });

  test('heat: the cool side is cooler, and degrees can be', () => {
    const zone = { rackId: ID, name: 'Mat', warmC: 32, coolC: 28, thermostat: true, everyDays: 30 };
    expect(fields(heatZoneInput, zone)).toEqual([]);
    expect(fields(heatZoneInput, { ...zone, coolC: 33 })).toEqual([
      'coolC: must be cooler than the warm side',
    ]);
    expect(fields(surfaceCheck, { on: ON, warmC: 200, coolC: 27, probeFixed: 'yes' })).toEqual([
      'warmC: must be at most 60',
      'probeFixed: must be yes or no',
    ]);
  });

  test('a rack has levels and tubs; hypotheses are shares and weeks', () => {
    expect(fields(rackChange, { room: 'R', name: '', levels: 0, tubsPerLevel: 21 })).toEqual([
      'name: is empty',
      'levels: must be at least 1',
      'tubsPerLevel: must be at most 20',
    ]);
    expect(fields(roomAssumptions, { saleAgeWeeks: -1, salePace: 1.2, heldBack: 0 })).toEqual([
      'saleAgeWeeks: must be at least 0',
      'salePace: must be at most 1',
    ]);
  });

  test('an own way may leave everything open; an act of care is one of those that are', () => {
    const record = (kind: string, body: object) => ({ kind, on: ON, body });
    expect(fields(newRecord, record('own-way', {}))).toEqual([]);
    expect(fields(newRecord, record('own-way', { share: 0.9, everyDays: 0 }))).toEqual([
      'body.everyDays: must be at least 1',
      'body.share: must be at most 0.5',
    ]);
    expect(fields(newRecord, record('care', {}))).toEqual(['body.act: is missing']);
    const meal = { species: 'rat', size: 'pup', state: 'live', taken: true };
    expect(fields(newRecord, record('feeding', { ...meal, step: 'live', light: 'dark' }))).toEqual([]);
    expect(fields(newRecord, record('feeding', { ...meal, light: 'moon' }))).toEqual([
      'body.light: must be one of light, dim, dark, null'.replace(', null', ''),
    ]);
  });
});
