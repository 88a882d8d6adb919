/** What was deleted is kept for so many days, and can be restored as long. */
export const BIN_DAYS = 30;
