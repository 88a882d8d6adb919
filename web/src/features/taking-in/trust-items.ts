import { TRUSTS } from '@karyotome/contract';
import { TRUST_WORDS } from '@karyotome/words';

/** How far a breeder's word may count, as a list to choose from. */
export const TRUST_ITEMS = TRUSTS.map((value) => ({ value, title: TRUST_WORDS[value] }));
