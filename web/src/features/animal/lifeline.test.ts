import type { AnimalView, RecordView } from '@karyotome/contract';
import { describe, expect, test } from 'vitest';
import { toLifeline } from './lifeline.ts';

const record = (kind: string, on: string, body: object, voided = false): RecordView =>
  ({
    id: `${kind}-${on}`,
    kind,
    on,
    body,
    note: null,
    author: 'Ida',
    recordedAt: `${on}T00:00:00Z`,
    voided: voided ? { at: '', by: '', reason: '', replacedBy: null } : null,
  }) as RecordView;

/** Records come newest first, as the server sends them. */
const animal = (...records: RecordView[]): AnimalView =>
  ({
    hatchedOn: '2026-01-01',
    records: records.toReversed(),
    steps: [{ name: 'Tub', minG: 0, maxG: 300, inside: '' }],
    currentStep: 0,
    care: { growth: { band: [{ on: '2026-01-01', lowG: 50, midG: 60, highG: 70 }] } },
  }) as unknown as AnimalView;

describe('a lifeline', () => {
  test('a shed reaches from its first sign to the skin', () => {
    const { sheds } = toLifeline(
      animal(
        record('shed', '2026-02-01', { stage: 'dull' }),
        record('shed', '2026-02-04', { stage: 'blue' }),
        record('shed', '2026-02-10', { stage: 'shed', complete: false }),
        record('shed', '2026-03-20', { stage: 'blue' }),
      ),
      '2026-04-01',
    );
    expect(sheds).toMatchObject([
      { from: '2026-02-01', to: '2026-02-10', isWhole: false },
      { from: '2026-03-20', to: '2026-03-20' },
    ]);
  });

  test('each stay lasts until the next move, the last until today with its weight range', () => {
    const { stays } = toLifeline(
      animal(record('move', '2026-01-10', { to: 'A 1-1' }), record('move', '2026-03-01', { to: 'B 1-1' })),
      '2026-04-01',
    );
    expect(stays).toMatchObject([
      { from: '2026-01-10', to: '2026-03-01', maxG: null },
      { from: '2026-03-01', to: '2026-04-01', maxG: 300 },
    ]);
  });

  test('what was voided is not drawn', () => {
    const data = toLifeline(
      animal(
        record('weight', '2026-01-10', { massG: 70 }),
        record('weight', '2026-01-20', { massG: 700 }, true),
      ),
      '2026-04-01',
    );
    expect(data.weights).toEqual([{ id: 'weight-2026-01-10', on: '2026-01-10', massG: 70 }]);
  });
});
