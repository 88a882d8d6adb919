import type { ListQuery, ListRules, Page } from '@karyotome/contract';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Refusal } from '../refusal.ts';
import { pageOf } from './paging.ts';

const RULES: ListRules = { key: 'id', sorts: ['massG', 'name'], filters: ['sex'] };
const query = (more: Partial<ListQuery> = {}): ListQuery => ({ limit: 2, after: null, sort: null, ...more });
const item = (id: string, massG: number | null, sex = 'male') => ({ id, massG, sex, name: id });

/** All pages, one after the other. */
function allOf<Item extends object>(items: readonly Item[], asked: ListQuery): Item[] {
  const found: Item[] = [];
  let after: string | null = null;
  do {
    const page: Page<Item> = pageOf(items, RULES, { ...asked, after });
    found.push(...page.items);
    after = page.next;
  } while (after !== null);
  return found;
}

describe('pages of a list', () => {
  test('together they are the list, each item once, whatever the size of a page', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.string()), fc.integer({ min: 1, max: 7 }), (ids, limit) => {
        const items = ids.map((id) => item(id, 1));
        expect(allOf(items, query({ limit }))).toEqual(items);
      }),
    );
  });

  test('sorted by a field, up or down: what has none comes last', () => {
    const items = [item('a', 30), item('b', null), item('c', 10), item('d', 20)];
    const ids = (sort: string): string[] => allOf(items, query({ sort })).map(({ id }) => id);
    expect(ids('massG')).toEqual(['c', 'd', 'a', 'b']);
    expect(ids('-massG')).toEqual(['a', 'd', 'c', 'b']);
  });

  test('filtered, and counted after filtering', () => {
    const items = [item('a', 1, 'female'), item('b', 1), item('c', 1, 'female'), item('d', 1, 'female')];
    const page = pageOf(items, RULES, query({ sex: 'female' }));
    expect(page).toMatchObject({ total: 3, items: [{ id: 'a' }, { id: 'c' }] });
    expect(pageOf(items, RULES, query({ sex: 'female', after: page.next }))).toMatchObject({
      items: [{ id: 'd' }],
      next: null,
    });
  });

  test('goes on after its last item, also where others came before it or it is gone', () => {
    const items = [item('a', 1), item('b', 1), item('c', 1), item('d', 1)];
    const { next } = pageOf(items, RULES, query());
    const rest = (now: typeof items): string[] =>
      pageOf(now, RULES, query({ after: next })).items.map(({ id }) => id);
    expect(rest([item('new', 1), ...items])).toEqual(['c', 'd']);
    expect(rest(items.filter(({ id }) => id !== 'b'))).toEqual(['c', 'd']);
  });

  test.each(['', 'x', 'W10', Buffer.from('[-1,"a"]').toString('base64url')])(
    'a cursor that is none ("%s") is refused by its name',
    (after) => {
      expect(() => pageOf([item('a', 1)], RULES, query({ after }))).toThrow(Refusal);
    },
  );
});
