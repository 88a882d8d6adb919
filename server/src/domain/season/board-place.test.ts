import { SEASON_RULES, type KeptAnimal, type SeasonEvent } from '@karyotome/core';
import { expect, test } from 'vitest';
import type { KeptPairing } from '../states/kept-animals.queries.ts';
import { boardOrder, boardPlace, isGravid } from './board-place.ts';

const TODAY = '2026-11-28';

function animal(sex: 'female' | 'male', massG: number): KeptAnimal {
  const weights = [{ id: 'w', on: '2026-11-20', massG }];
  return {
    id: sex,
    sex,
    hatchedOn: '2020-06-01',
    clutchId: null,
    weights,
    feedings: [],
    laidOn: [],
    history: { hatchedOn: '2020-06-01', weights, feedings: [], sheds: [], moves: [] },
    gravid: false,
    sexedOn: null,
    identified: true,
    unsure: null,
    housing: null,
  };
}
const event = (kind: SeasonEvent['kind'], on: string): SeasonEvent => ({
  id: `${kind}${on}`,
  kind,
  on,
  sireId: kind === 'ovulation' || kind === 'pre-lay-shed' ? null : 'male',
});
const pairing = (events: SeasonEvent[], clutches: KeptPairing['clutches'] = []): KeptPairing => ({
  id: 'p',
  season: 2027,
  startedOn: '2026-10-01',
  damId: 'female',
  clutches,
  events,
});
const placeOf = (one: KeptAnimal, pairings: KeptPairing[] = []) =>
  boardPlace(one, pairings, SEASON_RULES, TODAY);
const introduced = event('introduction', '2026-10-01');

test.each([
  ['nothing yet', [], [], 'ready'],
  ['a male with her', [introduced], [], 'together'],
  ['left alone', [introduced, event('separation', '2026-10-05')], [], 'apart'],
  [
    'ovulated',
    [introduced, event('separation', '2026-10-05'), event('ovulation', '2026-11-01')],
    [],
    'gravid',
  ],
  ['eggs', [introduced], [{ laidOn: '2026-11-10', hatchedOn: null }], 'laid'],
  // A clutch that hatched makes her open again.
  ['young', [introduced], [{ laidOn: '2026-09-10', hatchedOn: '2026-11-10' }], 'ready'],
])('a female with %s stands where she is seen to', (_what, events, clutches, group) => {
  expect(placeOf(animal('female', 1900), [pairing([...events], clutches)])).toMatchObject({
    group,
    pairingId: 'p',
  });
});

test('groups stand in the order of the work: those that need a hand first', () => {
  const females = ['together', 'gravid', 'laid', 'apart', 'ready', 'not-yet'] as const;
  expect(females.map(boardOrder)).toEqual([0, 1, 2, 3, 4, 5]);
  expect((['in-season', 'resting'] as const).map(boardOrder)).toEqual([0, 2]);
});

test('who is neither nearly grown nor has a part in the season is not on the board', () => {
  expect(placeOf(animal('female', 600))).toBeNull();
  expect(placeOf(animal('male', 300))).toBeNull();
  expect(placeOf(animal('female', 600), [pairing([introduced])])).toMatchObject({ group: 'together' });
});

test('a male is used as often as he was put to females, and is with the one he has not left', () => {
  const events = [introduced, event('lock', '2026-10-02'), event('lock', '2026-10-04')];
  expect(placeOf(animal('male', 900), [pairing(events)])).toMatchObject({
    group: 'in-season',
    use: { females: 1, locks: 2, lastLockOn: '2026-10-04', withId: 'female' },
  });
  const left = [...events, event('separation', '2026-10-05')];
  expect(placeOf(animal('male', 900), [pairing(left)])!.use!.withId).toBeNull();
});

test('gravid is from the ovulation to the eggs, and not for ever', () => {
  const ovulated = [introduced, event('ovulation', '2026-11-01')];
  expect(isGravid('female', [pairing(ovulated)], TODAY)).toBe(true);
  expect(isGravid('female', [pairing([introduced])], TODAY)).toBe(false);
  expect(isGravid('another', [pairing(ovulated)], TODAY)).toBe(false);
  const laid = [{ laidOn: '2026-11-20', hatchedOn: null }];
  expect(isGravid('female', [pairing(ovulated, laid)], TODAY)).toBe(false);
  expect(isGravid('female', [pairing(ovulated)], '2027-09-01')).toBe(false);
});
