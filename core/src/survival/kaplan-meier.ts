/** How long something took, or how long it was waited for without it coming. */
export interface Duration {
  readonly days: number;
  /** False: it had not come when the watching ended. */
  readonly came: boolean;
}

export interface SurvivalStep {
  readonly days: number;
  readonly atRisk: number;
  readonly came: number;
  /** The share for which it has not come by then. */
  readonly waiting: number;
  /** Standard error of that share (Greenwood 1926). */
  readonly se: number;
}

/**
 * The share still waiting, by time, with what was cut short taken into account (Kaplan & Meier 1958, JASA 53, 457-481).
 *
 * @example kaplanMeier([{ days: 5, came: true }]).length // 1
 */
export function kaplanMeier(durations: readonly Duration[]): SurvivalStep[] {
  const times = [...new Set(durations.filter(({ came }) => came).map(({ days }) => days))].toSorted(
    (a, b) => a - b,
  );
  let waiting = 1;
  let greenwood = 0;
  return times.map((days) => {
    const atRisk = durations.filter((one) => one.days >= days).length;
    const came = durations.filter((one) => one.came && one.days === days).length;
    waiting *= 1 - came / atRisk;
    if (atRisk > came) greenwood += came / (atRisk * (atRisk - came));
    return { days, atRisk, came, waiting, se: waiting * Math.sqrt(greenwood) };
  });
}

/**
 * The day by which it had come for half; null where it never did.
 *
 * @example medianWait([]) // null
 */
export function medianWait(steps: readonly SurvivalStep[]): number | null {
  return steps.find(({ waiting }) => waiting <= 0.5)?.days ?? null;
}
