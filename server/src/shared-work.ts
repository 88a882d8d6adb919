/**
 * Work under way, by a key: whoever asks for the same meanwhile waits for the same.
 *
 * @example
 * const begun = sharedWork<void>();
 * await begun('A', beginDay);
 */
export function sharedWork<T>(): (key: string, run: () => Promise<T>) => Promise<T> {
  const underWay = new Map<string, Promise<T>>();
  return (key, run) => {
    const known = underWay.get(key);
    if (known) return known;
    const started = run().finally(() => underWay.delete(key));
    underWay.set(key, started);
    return started;
  };
}
