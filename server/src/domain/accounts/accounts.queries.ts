import { select, type Work } from '../../db/work.ts';

export function accountEmail(work: Work, params: { readonly id: string }): Promise<{ email: string }[]> {
  return select<{ email: string }>(work, 'select email from accounts where id = :id', params);
}
