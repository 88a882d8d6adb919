import { newClutch } from '@karyotome/contract';
import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { beforeEach, expect, test, vi } from 'vitest';
import { createApp } from 'vue';
import { ProblemError } from '../api/client.ts';
import { filled, useForm } from './useForm.ts';

beforeEach(() => localStorage.clear());

const PAIRING = '0e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10';
function clutchForm(send: () => Promise<string>) {
  const app = createApp({}).use(createPinia()).use(PiniaColada);
  return app.runWithContext(() =>
    useForm({
      key: 'clutch',
      initial: () => ({ laidOn: null as string | null, eggs: null as number | null }),
      schema: newClutch,
      toInput: (draft) => ({ pairingId: PAIRING, ...filled(draft) }),
      send,
    }),
  );
}

test('what is missing is said at its field, and nothing is sent', async () => {
  const send = vi.fn();
  const form = clutchForm(send);
  expect(await form.submit()).toBeNull();
  expect(send).not.toHaveBeenCalled();
  expect(form.errorsOf('laidOn')).toEqual(['is missing']);
  expect(form.errorsOf('eggs')).toEqual(['is missing']);
  expect(form.general()).toBeNull();
});

test('what the server refuses is said at its field, or in general where the form has none', async () => {
  const errors = [
    { field: 'laidOn', code: 'x', message: 'lies before the pairing began' },
    { field: 'pairingId', code: 'x', message: 'names no pairing' },
  ];
  const form = clutchForm(() =>
    Promise.reject(new ProblemError({ type: 'x', title: 'No', status: 422, errors })),
  );
  Object.assign(form.draft, { laidOn: '2026-03-01', eggs: 6 });
  expect(await form.submit()).toBeNull();
  expect(form.errorsOf('laidOn')).toEqual(['lies before the pairing began']);
  expect(form.general()).toBe('pairingId names no pairing');
  expect(form.draft).toEqual({ laidOn: '2026-03-01', eggs: 6 });
});

test('what was sent is forgotten, what was not is kept', async () => {
  const form = clutchForm(() => Promise.resolve('sent'));
  Object.assign(form.draft, { laidOn: '2026-03-01', eggs: 6 });
  expect(await form.submit()).toEqual({ value: 'sent' });
  expect(form.draft).toEqual({ laidOn: null, eggs: null });
  expect(localStorage.length).toBe(0);
});
