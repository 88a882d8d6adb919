/** The owner that tests make at a first start. */
export const FIRST_OWNER = { name: 'Owner', email: 'owner@example.test', password: 'nine herons at dusk' };

/** The code of the first start, in what a server has written; null where it told none, or not all of it yet. */
export const codeIn = (told: string): string | null =>
  /\/start#(\w{4}-\w{4}-\w{4})\b/.exec(told)?.[1] ?? null;

/** Makes the first owner of a server that has none yet, as its start page does. @param told - what it has written */
export async function makeOwner(origin: string, told: string): Promise<void> {
  const code = codeIn(told);
  if (code === null) return;
  const farm = {
    name: 'My collection',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    massUnit: 'g',
    temperatureUnit: 'C',
    currency: 'EUR',
    numberPattern: 'season-clutch-hatchling',
  };
  const answer = await fetch(`${origin}/api/v1/first-start`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ code, ...FIRST_OWNER, farm }),
  });
  // Made before: the account is there, and what was told is of the start before.
  if (answer.status !== 201 && answer.status !== 409)
    throw new Error(`The first start: ${answer.status} ${await answer.text()}`);
}
