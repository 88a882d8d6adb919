import type { HeatZoneView, ManyMoves, RackView } from '@karyotome/contract';
import { PiniaColada } from '@pinia/colada';
import { flushPromises } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createApp, ref } from 'vue';
import { mounted, pageText } from '../../../test/mounted.ts';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import HeatZoneDialog from './HeatZoneDialog.vue';
import RackFront from './RackFront.vue';
import SurfaceCheckDialog from './SurfaceCheckDialog.vue';
import { useMoving } from './useMoving.ts';

beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});

type Housed = RackView['tubs'][number]['animals'][number];
const housed = (id: string, more: Partial<Housed> = {}): Housed => ({
  id,
  number: id.toUpperCase(),
  label: 'Pastel',
  sex: 'male',
  massG: 210,
  verdict: 'none',
  inShed: false,
  fit: 'fits',
  concern: false,
  lastCleaned: null,
  cleanDue: false,
  ...more,
});
/** One level of tubs; a letter is an animal, a dot a free tub. */
function rackOf(line: string, more: Partial<RackView> = {}): RackView {
  return {
    id: 'rack',
    room: 'Room',
    name: 'Left',
    levels: 1,
    tubsPerLevel: line.length,
    ladderId: 'ladder',
    stepPosition: 0,
    step: { name: 'Hatchling tub', minG: 0, maxG: 300, inside: '' },
    version: 1,
    zones: [],
    animals: [...line].filter((mark) => mark !== '.').length,
    free: [...line].filter((mark) => mark === '.').length,
    tubs: [...line].map((mark, i) => ({
      id: `tub${i + 1}`,
      level: 1,
      slot: i + 1,
      animals: mark === '.' ? [] : [housed(mark)],
    })),
    ...more,
  };
}

describe('moving in the room', () => {
  function moving(line: string) {
    const app = createApp({}).use(createPinia()).use(PiniaColada);
    setActivePinia(app.config.globalProperties.$pinia);
    const rack = rackOf(line);
    const racks = ref<RackView[] | undefined>([rack]);
    const sent = vi.spyOn(api, 'moveMany').mockResolvedValue({ ids: ['r1', 'r2'] });
    const undone = vi.spyOn(api, 'voidRecords').mockResolvedValue(undefined);
    const acts = app.runWithContext(() => ({ ...useMoving(racks), notices: useNotices() }));
    return { ...acts, rack, sent, undone };
  }
  const movesOf = (sent: { mock: { lastCall?: [ManyMoves] | undefined } }): string[] =>
    sent.mock.lastCall![0].moves.map(({ animalId, toTubId }) => `${animalId}>${toTubId}`);

  test('one into a free tub', async () => {
    const { put, rack, sent, notices } = moving('a.b');
    await put(['a'], rack.tubs[1]!, rack);
    expect(movesOf(sent)).toEqual(['a>tub2']);
    expect(notices.current?.text).toBe('A moved to Left 1-2');
  });

  test('one onto another’s tub changes places with it, and one undo takes both back', async () => {
    const { put, rack, sent, undone, notices } = moving('a.b');
    await put(['a'], rack.tubs[2]!, rack);
    expect(movesOf(sent)).toEqual(['a>tub3', 'b>tub1']);
    await notices.current!.undo!();
    expect(undone).toHaveBeenCalledWith(['r1', 'r2']);
  });

  test('several go into that tub and the free ones after it, past those that are taken', async () => {
    const { take, held, put, rack, sent } = moving('ab..c.');
    take('a');
    take('b');
    await put(held.value, rack.tubs[3]!, rack);
    expect(movesOf(sent)).toEqual(['a>tub4', 'b>tub6']);
    expect(held.value).toEqual([]);
  });

  test('too many for what is left there are not moved at all, and stay in the hand', async () => {
    const { take, held, put, rack, sent, notices } = moving('abc..');
    for (const id of ['a', 'b', 'c']) take(id);
    await put(held.value, rack.tubs[3]!, rack);
    expect(sent).not.toHaveBeenCalled();
    expect(notices.current?.isError).toBe(true);
    expect(held.value).toHaveLength(3);
  });

  test('onto its own tub nothing happens; taken up twice it is let go', async () => {
    const { take, held, inHand, put, rack, sent } = moving('a.');
    take('a');
    expect(inHand.value.map(({ number }) => number)).toEqual(['A']);
    await put(['a'], rack.tubs[0]!, rack);
    expect(sent).not.toHaveBeenCalled();
    take('a');
    take('a');
    expect(held.value).toEqual([]);
  });

  test('out of its tub; what the server refuses is said', async () => {
    const { takeOut, sent, notices } = moving('a.');
    await takeOut(['a']);
    expect(movesOf(sent)).toEqual(['a>null']);
    sent.mockRejectedValue(
      new ProblemError({ type: 'x', title: 'No', status: 422, detail: 'moves.0 is wrong' }),
    );
    await takeOut(['a']);
    expect(notices.current).toMatchObject({ isError: true, text: 'moves.0 is wrong' });
  });
});

describe('a rack', () => {
  const front = (rack: RackView, more = {}) =>
    mounted(RackFront, { rack, mayHouse: true, held: [], show: 'all', ...more });

  test('says of each animal what a hand should know, also without seeing', () => {
    const rack = rackOf('a.');
    rack.tubs[0]!.animals[0] = housed('a', {
      verdict: 'move-up',
      fit: 'heavy',
      inShed: true,
      concern: true,
      cleanDue: true,
    });
    const wrapper = front(rack);
    for (const words of ['in shed', 'a second look', 'cleaning due', 'advised to move up']) {
      expect(wrapper.find(`[aria-label="${words}"]`).exists(), words).toBe(true);
    }
    expect(wrapper.find('.in').attributes('title')).toContain('heavier than its tub is for');
  });

  test('taken up by its ring, put down by a button: with keys alone', async () => {
    const wrapper = front(rackOf('a.'));
    await wrapper.find('[aria-label="Take up A"]').trigger('click');
    expect(wrapper.emitted('take')).toEqual([['a']]);
    await wrapper.setProps({ held: ['a'] });
    await wrapper.find('[aria-label="Put into Left 1-2"]').trigger('click');
    expect(wrapper.emitted('put')![0]![0]).toEqual(['a']);
  });

  test('what is looked for shines, the rest fades', async () => {
    const wrapper = front(rackOf('a.'), { show: 'free' });
    expect(wrapper.findAll('.tub').map((tub) => tub.classes('faded'))).toEqual([true, false]);
    await wrapper.setProps({ show: 'advised' });
    expect(wrapper.findAll('.faded')).toHaveLength(2);
  });

  test('one dragged along with the others in the hand', async () => {
    const wrapper = front(rackOf('ab.'), { held: ['a', 'b'] });
    const data = new Map<string, string>();
    const dataTransfer = {
      setData: (type: string, value: string) => data.set(type, value),
      getData: (type: string) => data.get(type) ?? '',
      effectAllowed: '',
    };
    await wrapper.findAll('.in')[1]!.trigger('dragstart', { dataTransfer });
    await wrapper.findAll('.tub')[2]!.trigger('drop', { dataTransfer });
    expect(wrapper.emitted('put')![0]![0]).toEqual(['a', 'b']);
  });

  test('whoever only looks cannot take anything up', () => {
    const wrapper = front(rackOf('a.'), { mayHouse: false });
    expect(wrapper.find('.hand').exists()).toBe(false);
    expect(wrapper.find('.in').attributes('draggable')).toBe('false');
  });
});

describe('heat', () => {
  const ID = '11111111-1111-4111-8111-111111111111';
  const zone: HeatZoneView = {
    id: ID,
    rackId: ID,
    name: 'Level 1',
    warmC: 32.8,
    coolC: 27.8,
    thermostat: true,
    everyDays: 30,
    version: 2,
    lastCheck: null,
    faults: [],
    dueOn: '2026-06-20',
  };
  const submit = async (): Promise<void> => {
    document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
    await flushPromises();
  };

  test('a check without a measure is refused at its field; a fault is said at once', async () => {
    const send = vi
      .spyOn(api, 'addSurfaceCheck')
      .mockResolvedValue({ id: 'c', faults: [{ code: 'probe-loose', facts: {} }] });
    mounted(SurfaceCheckDialog, { zone: { id: ID, name: 'Level 1', rack: 'Left' } });
    await submit();
    expect(send).not.toHaveBeenCalled();
    expect(pageText()).toContain('is missing');
    localStorage.setItem(
      `karyotome.draft.heat.${ID}`,
      JSON.stringify({ warmC: 33, coolC: 27, probeFixed: false }),
    );
    document.body.innerHTML = '';
    const wrapper = mounted(SurfaceCheckDialog, { zone: { id: ID, name: 'Level 1', rack: 'Left' } });
    await submit();
    expect(send.mock.lastCall![1]).toMatchObject({ warmC: 33, coolC: 27, probeFixed: false });
    expect(useNotices().current).toMatchObject({
      isError: true,
      text: 'Recorded. The probe hung loose: the mat runs hot.',
    });
    expect(wrapper.emitted('close')).toHaveLength(1);
  });

  test('a mat without a thermostat is warned of; a zone is changed with its version', async () => {
    const change = vi.spyOn(api, 'changeHeatZone').mockResolvedValue({ id: ID });
    const rack = rackOf('a.', { id: ID, zones: [zone] });
    mounted(HeatZoneDialog, { rack, zone: { ...zone, thermostat: false } });
    expect(pageText()).toContain('burns and kills');
    await submit();
    expect(change).toHaveBeenCalledWith(ID, expect.objectContaining({ name: 'Level 1' }), 2);
  });
});
