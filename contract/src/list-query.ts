import Joi from 'joi';
import { PAGE_SIZE, type ListQuery, type ListRules } from './page.ts';

const MOST_FILTER_LENGTH = 200;
/** As many ids as a page usually has items, with their commas. */
const MOST_IDS_LENGTH = PAGE_SIZE.usual * 37;

/** The schema of a list's query. */
export const listQuery = (rules: ListRules): Joi.ObjectSchema<ListQuery> =>
  Joi.object<ListQuery>(listFields(rules));

/** The same field by field, for a list that is asked for by more. */
export function listFields({ sorts, filters }: Omit<ListRules, 'key'>): Joi.SchemaMap<ListQuery> {
  const value = Joi.string().max(MOST_FILTER_LENGTH);
  return {
    limit: Joi.number().integer().min(1).max(PAGE_SIZE.most).default(PAGE_SIZE.usual),
    after: Joi.string().max(MOST_FILTER_LENGTH).default(null),
    format: Joi.string().valid('csv'),
    sort: Joi.string()
      .valid(...sorts, ...sorts.map((field) => `-${field}`))
      .default(null),
    ...Object.fromEntries(
      filters.map((field) => [field, field === 'id' ? Joi.string().max(MOST_IDS_LENGTH) : value]),
    ),
  };
}
