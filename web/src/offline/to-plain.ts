/** Reactive objects cannot be stored or cloned as they are. A photograph's bytes stay what they are. */
export function toPlain<T>(value: T): T {
  if (value instanceof Blob || typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map(toPlain) as T;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, toPlain(inner)])) as T;
}
