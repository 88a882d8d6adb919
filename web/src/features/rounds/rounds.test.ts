import 'fake-indexeddb/auto';
import { newRecord, validate } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import QRCode from 'qrcode';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { readCode } from '../../ui/read-code.ts';
import { mounted, pageText } from '../../../test/mounted.ts';
import { roundAnimal, roundView } from '../../../test/round.ts';
import { animalOf } from './animal-of-code.ts';
import { noted, ROUND_ACTS, weighed } from './round-acts.ts';
import RackList from './RackList.vue';
import RoundStop from './RoundStop.vue';
import { hasSerial, serialScale, simulatedScale } from './scale/sources.ts';
import { stopsOf } from './useRoundPlace.ts';
import WeighDialog from './WeighDialog.vue';

beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.stubGlobal('visualViewport', new EventTarget());
  document.body.innerHTML = '';
});

describe('the acts of a round', () => {
  test('each has a key of its own, none of those that the round itself needs', () => {
    const keys = ROUND_ACTS.map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const taken of ['w', 'o', 'u']) expect(keys).not.toContain(taken);
  });

  test('each enters a record that the server takes', () => {
    const animal = roundAnimal('1');
    const entered = [...ROUND_ACTS.map((act) => act.enter(animal)!), weighed(210.5), noted('calm')];
    for (const { record, text: words } of entered) {
      const result = validate(newRecord, record);
      expect(result.ok, words).toBe(true);
    }
  });

  test('a meal carries the step of its plan, and cannot be entered for one that was never weighed', () => {
    const took = ROUND_ACTS.find(({ key }) => key === 't')!;
    const { meal } = roundAnimal('1');
    const step = { key: 'warmer', name: 'Prey warmer', tries: 2 };
    const trying = roundAnimal('1', { meal: { ...meal!, plan: { ...meal!.plan, index: 2, step } } });
    expect(took.enter(trying)!.record.body).toMatchObject({ step: 'warmer', taken: true });
    expect(took.enter(roundAnimal('1'))!.record.body).not.toHaveProperty('step');
    expect(took.enter(roundAnimal('1', { meal: null }))).toBeNull();
  });
});

describe('a stop', () => {
  const stop = (animal = roundAnimal('1')) => ({ rack: roundView('1').racks[0]!, place: '1-1', animal });

  test('says what it needs, and has one button for each act', async () => {
    const wrapper = mounted(RoundStop, { stop: stop(), done: [], mayRecord: true });
    expect(wrapper.text()).toContain('Offer');
    const taken = wrapper.findAll('button').find((one) => one.text().startsWith('Took it'))!;
    await taken.trigger('click');
    expect(wrapper.emitted('act')![0]).toEqual([ROUND_ACTS[0]]);
    expect(wrapper.findAll('.act')).toHaveLength(ROUND_ACTS.length + 3);
  });

  test('shows what was logged, and takes it back; whoever only looks has no buttons', async () => {
    const done = [{ key: 'k', text: 'rat pup taken', isWaiting: true, recordId: null }];
    const wrapper = mounted(RoundStop, { stop: stop(), done, mayRecord: true });
    expect(wrapper.text()).toContain('waits');
    await wrapper.find('[aria-label="Take back: rat pup taken"]').trigger('click');
    expect(wrapper.emitted('undo')![0]).toEqual(done);
    const looking = mounted(RoundStop, { stop: stop(), done, mayRecord: false });
    expect(looking.findAll('button')).toHaveLength(0);
  });

  test('cautions and flags stand before the buttons', () => {
    const shed = {
      stage: 'blue' as const,
      since: '2026-06-18',
      days: 2,
      record: 's',
      expected: { from: '2026-06-22', mid: '2026-06-24', to: '2026-06-26' },
      ownCycles: 0,
      late: false,
    };
    const animal = roundAnimal('1', {
      flags: [{ code: 'digesting', facts: { daysSinceMeal: 0 } }],
      shed,
      meal: null,
    });
    const wrapper = mounted(RoundStop, { stop: stop(animal), done: [], mayRecord: true });
    expect(wrapper.text()).toContain('ate today: no handling');
    expect(wrapper.text()).toContain('In shed (blue), day 2');
    expect(wrapper.text()).toContain('Weigh it first');
  });

  test('a rack’s list finds a number, and begins with the first that is still to be fed', async () => {
    const view = roundView('11', '12', '21');
    const logged = new Set([view.racks[0]!.tubs[0]!.animals[0]!.id]);
    const wrapper = mounted(RackList, {
      view,
      mayRecord: true,
      loggedOf: ({ id }: { id: string }) => (logged.has(id) ? [{}] : []),
    });
    expect(wrapper.text()).toContain('3 to feed');
    expect(wrapper.text()).toContain('Go on');
    await wrapper.find('[aria-label="Begin with Left"]').trigger('click');
    expect(wrapper.emitted('enter')![0]).toEqual(['rack', stopsOf(view.racks[0]!)[1]!.animal.id]);
    await wrapper.find('input').setValue('2');
    expect(
      wrapper
        .findAll('button')
        .filter((one) => one.text().includes('Left 1-'))
        .map((one) => one.text()),
    ).toEqual(['12, Left 1-2', '21, Left 1-3']);
  });
});

describe('weighing', () => {
  const press = async (...names: string[]): Promise<void> => {
    for (const name of names) {
      const found = [...document.querySelectorAll<HTMLElement>('.v-dialog button')].find(
        (one) => one.getAttribute('aria-label') === name || one.textContent!.trim() === name,
      )!;
      found.click();
      await flushPromises();
    }
  };

  test('by keypad; what is far from expected is kept at the second asking only', async () => {
    const wrapper = mounted(WeighDialog, { animal: roundAnimal('1') });
    await press('1', '0', '5', 'Keep');
    expect(pageText()).toContain('50% of what was expected: right animal?');
    expect(wrapper.emitted('keep')).toBeUndefined();
    await press('Keep anyway');
    expect(wrapper.emitted('keep')).toEqual([[105]]);
  });

  test('by keys; one decimal point, and the last digit is taken away', async () => {
    const wrapper = mounted(WeighDialog, { animal: roundAnimal('1') });
    for (const key of ['2', '1', '0', ',', '5', '.', '5', 'Backspace', 'Enter']) {
      window.dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true }));
    }
    await flushPromises();
    expect(wrapper.emitted('keep')).toEqual([[210.5]]);
  });

  test('from a scale: what it shows is entered once it is steady', async () => {
    vi.useFakeTimers();
    mounted(WeighDialog, { animal: roundAnimal('1') });
    await press('Simulated scale');
    await vi.advanceTimersByTimeAsync(6000);
    const shown = Number(document.querySelector('output')!.textContent!.replace(/[^0-9.]/g, ''));
    expect(Math.abs(shown - 210)).toBeLessThan(2);
    expect(localStorage.getItem('karyotome.scale')).toBe('simulated');
  });
});

describe('where a scale’s lines come from', () => {
  test('the serial interface: bytes in any pieces are lines', async () => {
    const pieces = ['ST,GS,+ 12', '3.4 g\r\nUS', ',GS,+ 1.0 g\n'];
    const port = {
      open: vi.fn(() => Promise.resolve()),
      close: vi.fn(() => Promise.resolve()),
      readable: new ReadableStream<Uint8Array>({
        start(controller) {
          pieces.forEach((piece) => controller.enqueue(new TextEncoder().encode(piece)));
          controller.close();
        },
      }),
    };
    vi.stubGlobal('navigator', { serial: { getPorts: async () => [], requestPort: async () => port } });
    expect(hasSerial()).toBe(true);
    const lines: string[] = [];
    const ended = await new Promise<string>((resolve) => {
      void serialScale(9600).open((line) => lines.push(line), resolve);
    });
    expect(lines).toEqual(['ST,GS,+ 123.4 g', 'US,GS,+ 1.0 g']);
    expect(ended).toContain('unplugged');
    expect(port.open).toHaveBeenCalledWith({ baudRate: 9600 });
  });

  test('a browser without one says so', async () => {
    vi.stubGlobal('navigator', {});
    await expect(
      serialScale(9600).open(
        () => undefined,
        () => undefined,
      ),
    ).rejects.toThrow('no serial interface');
  });

  test('the simulated one begins with an empty pan and ends when it is closed', async () => {
    vi.useFakeTimers();
    const lines: string[] = [];
    const close = await simulatedScale(
      () => 80,
      () => 0.5,
    ).open(
      (line) => lines.push(line),
      () => undefined,
    );
    await vi.advanceTimersByTimeAsync(2400);
    await close();
    const count = lines.length;
    await vi.advanceTimersByTimeAsync(1000);
    expect(lines).toHaveLength(count);
    expect(lines[0]).toContain('0.0 g');
    expect(lines.at(-1)).toMatch(/^ST,GS,\+ +80\.0 g$/);
  });
});

describe('a label’s code', () => {
  const ID = '1f0e6c52-3f0a-4a53-9a57-5ec9a33d4a10';
  function drawn(content: string): { data: Uint8ClampedArray; width: number; height: number } {
    const { modules } = QRCode.create(content, { errorCorrectionLevel: 'M' });
    const scale = 4;
    const size = (modules.size + 8) * scale;
    const data = new Uint8ClampedArray(size * size * 4).fill(255);
    for (let y = 0; y < size; y++) {
      for (let x = 0; x < size; x++) {
        const [row, column] = [Math.floor(y / scale) - 4, Math.floor(x / scale) - 4];
        const inside = row >= 0 && column >= 0 && row < modules.size && column < modules.size;
        if (inside && modules.get(row, column)) data.set([0, 0, 0, 255], (y * size + x) * 4);
      }
    }
    return { data, width: size, height: size };
  }

  test('leads to its animal, whatever the address of the server', () => {
    const text = readCode(drawn(`https://snakes.example:8443/animals/${ID}?label=3`) as never)!;
    expect(animalOf(text)).toBe(ID);
    expect(animalOf('https://example.test/p/something')).toBeNull();
    expect(animalOf(`/animals/${ID}x`)).toBeNull();
  });
});
