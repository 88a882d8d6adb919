import { RECORD_KINDS, newRecord, validate } from '@karyotome/contract';
import { describe, expect, test } from 'vitest';
import { emptyRecord, readyToSend, sizesOf } from './record-defaults.ts';

describe('a record as its form begins', () => {
  test('every kind starts with fields the server knows', () => {
    for (const kind of RECORD_KINDS) {
      const result = validate(newRecord, emptyRecord(kind, 'Ida'));
      const unknown = result.ok ? [] : result.problems.filter((problem) => problem.code.includes('unknown'));
      expect(unknown, kind).toEqual([]);
    }
  });

  test('a meal is offered as advised', () => {
    expect(emptyRecord('feeding', 'Ida', { species: 'rat', size: 'weaned', preyG: 40 }).body).toMatchObject({
      size: 'weaned',
    });
    expect(sizesOf('mouse')[0]).toBe('pinky');
    expect(sizesOf('other')).toContain('medium');
  });

  test('a sign of shedding says nothing of the skin yet', () => {
    const shed = emptyRecord('shed', 'Ida');
    if (shed.kind !== 'shed') throw new Error('not a shed');
    expect(readyToSend({ ...shed, body: { ...shed.body, stage: 'blue' } }).body).toEqual({ stage: 'blue' });
    expect(readyToSend(shed).body).toMatchObject({ complete: true });
  });
});
