/** Natural logarithms of 0! up to n!. */
export function logFactorials(n: number): Float64Array {
  const logs = new Float64Array(n + 1);
  for (let i = 2; i <= n; i++) logs[i] = logs[i - 1]! + Math.log(i);
  return logs;
}
