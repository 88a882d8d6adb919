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

/**
 * Work that takes up all that is there when it begins: whoever asks while it is under way waits for the next, which all of
 * them share.
 */
export function coalescedWork<T>(): (key: string, run: () => Promise<T>) => Promise<T> {
  const underWay = new Map<string, Promise<T>>();
  const next = new Map<string, Promise<T>>();
  const begin = (key: string, run: () => Promise<T>): Promise<T> => {
    const started = run().finally(() => underWay.delete(key));
    underWay.set(key, started);
    return started;
  };
  return (key, run) => {
    const current = underWay.get(key);
    if (!current) return begin(key, run);
    const known = next.get(key);
    if (known) return known;
    const after = current.then(
      () => (next.delete(key), begin(key, run)),
      () => (next.delete(key), begin(key, run)),
    );
    next.set(key, after);
    return after;
  };
}
