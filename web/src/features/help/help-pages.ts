import { BREEDING_PAGES } from './breeding-pages.ts';
import { CARE_PAGES } from './care-pages.ts';
import { COLLECTION_PAGES } from './collection-pages.ts';
import type { HelpPage } from './help-page.ts';

/** Of addresses that two are about, the first one's. */
export const HELP_PAGES: readonly HelpPage[] = [...CARE_PAGES, ...BREEDING_PAGES, ...COLLECTION_PAGES];

export const helpAt = (path: string): HelpPage | null => HELP_PAGES.find(({ at }) => at.test(path)) ?? null;
