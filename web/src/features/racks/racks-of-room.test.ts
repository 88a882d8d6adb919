import { expect, test } from 'vitest';
import { racksOfRoom, rowFor } from './racks-of-room.ts';

const STEPS = [{ name: 'Hatchling tub' }, { name: 'Yearling tub' }, { name: 'Deep cage' }];
const ROOM = { room: 'Snake room', ladderId: 'l' };

test('racks are named by their kind of tub, each by a name that is free', () => {
  const rows = [
    { count: 2, levels: 10, tubsPerLevel: 6 },
    { count: 0, levels: 6, tubsPerLevel: 4 },
    { count: 1, levels: 4, tubsPerLevel: 2 },
  ];
  expect(racksOfRoom(ROOM, STEPS, rows, ['Hatchling 1'])).toEqual([
    { ...ROOM, name: 'Hatchling 2', levels: 10, tubsPerLevel: 6, stepPosition: 0 },
    { ...ROOM, name: 'Hatchling 3', levels: 10, tubsPerLevel: 6, stepPosition: 0 },
    { ...ROOM, name: 'Deep cage 1', levels: 4, tubsPerLevel: 2, stepPosition: 2 },
  ]);
});

test('no rack is there until a number is typed, and what is cleared is none', () => {
  expect(
    racksOfRoom(
      ROOM,
      STEPS,
      STEPS.map((_, i) => rowFor(i)),
      [],
    ),
  ).toEqual([]);
  expect(racksOfRoom(ROOM, STEPS, [{ count: null, levels: 1, tubsPerLevel: 1 }], [])).toEqual([]);
});
