/** Stands for no animal: an id that none has. */
export const NOBODY = '00000000-0000-0000-0000-000000000000';
