export type Fields = Readonly<Record<string, unknown>>;

/** Whether a JSON value is an object. */
export function isFields(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Whether a JSON value is a number in a range, ends included. */
export function isWithin(value: unknown, low: number, high: number): value is number {
  return typeof value === 'number' && value >= low && value <= high;
}
