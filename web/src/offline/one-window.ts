/** Only one window of this device sends at a time; the others leave it to that one. */
export async function oneWindow(run: () => Promise<void>): Promise<void> {
  // Browsers before 2022 have no locks: there the keys alone keep an entry from counting twice.
  const { locks } = navigator as Partial<Pick<Navigator, 'locks'>>;
  if (!locks) return run();
  await locks.request('karyotome.round', { ifAvailable: true }, async (lock) => {
    if (lock) await run();
  });
}
