import { ROUTES, type FeedView } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import { afterEach, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import { noteWritten } from '../../api/written.ts';
import { useNotices } from '../../stores/notices.ts';
import CalendarCard from './CalendarCard.vue';

const feed: FeedView = {
  id: 'a',
  name: 'Phone',
  by: 'Ida',
  createdAt: '2026-05-14T10:00:00Z',
};
afterEach(() => vi.restoreAllMocks());
/** What the browser does when something is copied. */
function copyingIs(writeText: (text: string) => Promise<void>): void {
  Object.defineProperty(navigator, 'clipboard', { value: { writeText }, configurable: true });
}
async function card(feeds: FeedView[]) {
  const list = vi.spyOn(api, 'calendarFeeds').mockResolvedValue(feeds);
  const wrapper = mounted(CalendarCard, {});
  await flushPromises();
  return { wrapper, list };
}

/** Makes an address, which is then shown. */
async function making() {
  vi.spyOn(api, 'addCalendarFeed').mockResolvedValue({ id: 'b', path: '/api/v1/calendar/SECRET.ics' });
  const { wrapper } = await card([feed]);
  await wrapper.get('input').setValue('Desk');
  await wrapper.get('form').trigger('submit');
  await flushPromises();
  return wrapper;
}

test('an address is whole, so that it can be copied into any calendar, and shown once', async () => {
  const writeText = vi.fn().mockResolvedValue(undefined);
  copyingIs(writeText);
  const wrapper = await making();
  const address = `${window.location.origin}/api/v1/calendar/SECRET.ics`;
  expect(wrapper.get('.secret').text()).toBe(address);
  await button(wrapper, 'Copy').trigger('click');
  expect(writeText).toHaveBeenCalledWith(address);
  await flushPromises();
  expect(useNotices().current?.text).toBe('The address is copied');
  await button(wrapper, 'Done').trigger('click');
  expect(wrapper.find('.secret').exists()).toBe(false);
  expect(wrapper.text()).toContain('by Ida');
});

test('where copying is not allowed, it says what to do instead', async () => {
  copyingIs(() => Promise.reject(new Error('no')));
  const wrapper = await making();
  await button(wrapper, 'Copy').trigger('click');
  await flushPromises();
  expect(useNotices().current).toMatchObject({ isError: true });
});

test('a new one is named; a missing name is said at its field', async () => {
  const errors = [{ field: 'name', code: 'empty', message: 'is empty' }];
  const add = vi
    .spyOn(api, 'addCalendarFeed')
    .mockRejectedValueOnce(new ProblemError({ type: 'x', title: 'Invalid', status: 422, errors }))
    .mockResolvedValue({ id: 'b', path: '/api/v1/calendar/x.ics' });
  const { wrapper } = await card([]);
  await wrapper.get('form').trigger('submit');
  await flushPromises();
  expect(wrapper.text()).toContain('is empty');
  await wrapper.get('input').setValue('  Desk ');
  await wrapper.get('form').trigger('submit');
  await flushPromises();
  expect(add).toHaveBeenLastCalledWith('Desk');
  expect(wrapper.get('input').element.value).toBe('');
});

test('revoked, the list is read anew', async () => {
  const revoke = vi
    .spyOn(api, 'revokeCalendarFeed')
    .mockImplementation(async () => noteWritten(ROUTES.revokeCalendarFeed));
  const { wrapper, list } = await card([feed]);
  list.mockResolvedValue([]);
  await button(wrapper, 'Revoke Phone').trigger('click');
  await flushPromises();
  expect(revoke).toHaveBeenCalledWith('a');
  expect(wrapper.text()).not.toContain('by Ida');
});
