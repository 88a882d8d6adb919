/** One that the server fails on so often is set aside, to be looked at: it would hold up the others for ever. */
export const MOST_FAILURES = 5;
/** What is said of it. */
export const FAILED_OFTEN = {
  title: 'The server failed on it several times',
  detail: 'The server failed on it several times. It is kept here: try it again later.',
  errors: [],
};
