import type { BackupView } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import { afterEach, expect, test, vi } from 'vitest';
import { mounted } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import BackupCard from './BackupCard.vue';

afterEach(() => vi.restoreAllMocks());

const last: BackupView['last'] = {
  madeAt: '2026-05-14T02:00:00Z',
  folder: '/backups',
  file: 'karyotome-20260514T020000Z.zip',
  bytes: 7_619_119,
  rows: 7146,
  files: 168,
  missing: 0,
};
async function card(view: Partial<BackupView>): Promise<{ text: string; alerts: string[] }> {
  vi.spyOn(api, 'backup').mockResolvedValue({ isNightly: true, last, failed: null, isLate: false, ...view });
  const wrapper = mounted(BackupCard, {});
  await flushPromises();
  return {
    text: wrapper.text().replace(/\s+/g, ' '),
    alerts: wrapper.findAll('[role=alert]').map((alert) => alert.text()),
  };
}

test('the last backup is told with its size and place, without a warning', async () => {
  const { text, alerts } = await card({});
  expect(text).toContain('7.6 MB, with 168 files');
  expect(text).toContain('/backups/karyotome-20260514T020000Z.zip');
  expect(alerts).toEqual([]);
});

test('one that is too old, one that failed and files that were missing are warned of', async () => {
  const { text, alerts } = await card({
    last: { ...last, missing: 2 },
    isLate: true,
    failed: { at: '2026-05-17T02:00:00Z', fault: 'disk-full' },
  });
  expect(alerts[0]).toContain('older than two days');
  expect(alerts.join(' ')).toContain('the disk is full where backups are kept');
  expect(text).toContain('2 files were missing or damaged');
});

test('where there is none yet, and where none are made, it says so', async () => {
  expect((await card({ last: null, isLate: true })).alerts[0]).toContain('There is no backup yet');
  const off = await card({ last: null, isLate: true, isNightly: false });
  expect(off.alerts).toEqual([]);
  expect(off.text).toContain('No backups are made every night on this server');
});
