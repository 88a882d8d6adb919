import type { AnimalView, PictureView, RecordView } from '@karyotome/contract';
import { expect, test } from 'vitest';
import { picturesInTime, scalesOf } from './picture-stages.ts';

const picture = (id: string, takenOn: string | null) => ({ id, takenOn }) as unknown as PictureView;
const record = (kind: string, on: string, body: object, voided: object | null = null) =>
  ({ id: `${kind}${on}`, kind, on, body, voided }) as unknown as RecordView;
const animal = (pictures: PictureView[], records: RecordView[]) =>
  ({ hatchedOn: '2024-01-01', pictures, records }) as Pick<AnimalView, 'hatchedOn' | 'records' | 'pictures'>;

test('pictures stand in time, from hatchling over sheds to adult, each with its weight', () => {
  const pictures = ['2026-12-01', '2024-01-03', '2024-03-10', '2025-01-10', '2025-08-01', null].map((on, i) =>
    picture(`p${i}`, on),
  );
  const records = [
    record('shed', '2024-01-12', { stage: 'shed' }),
    record('shed', '2024-03-01', { stage: 'blue' }),
    record('shed', '2024-03-08', { stage: 'shed' }),
    record('shed', '2024-03-09', { stage: 'shed' }, { on: '2024-03-10' }),
    record('weight', '2024-01-02', { massG: 64 }),
    record('weight', '2026-11-20', { massG: 1728 }),
  ];
  const shown = picturesInTime(animal(pictures, records));
  expect(shown.map(({ picture: one, stage, massG }) => [one.id, stage, massG])).toEqual([
    ['p1', 'hatchling', 64],
    ['p2', 'after shed 2', null],
    ['p3', 'yearling', null],
    ['p4', 'sub-adult', null],
    ['p0', 'adult', 1728],
  ]);
});

test('at one scale: twenty-seven times the weight is three times the length', () => {
  expect(scalesOf([{ massG: 64 }, { massG: 1728 }, { massG: null }])).toEqual([1 / 3, 1, 1]);
  expect(scalesOf([])).toEqual([]);
});
