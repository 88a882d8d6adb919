/** The natural logarithm of the sum of exponentials, without overflow. -Infinity for an empty list. */
export function logSumExp(logs: readonly number[]): number {
  let most = -Infinity;
  for (const log of logs) if (log > most) most = log;
  if (most === -Infinity) return most;
  let sum = 0;
  for (const log of logs) sum += Math.exp(log - most);
  return most + Math.log(sum);
}
