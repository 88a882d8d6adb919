/* Which backups are kept: the newest of each of the last days, weeks and months that have one. */

export const KEPT = { days: 7, weeks: 5, months: 12 } as const;
/** Those that were made before a migration are kept apart, so many. */
export const KEPT_BEFORE_MIGRATION = 3;

export type BackupKind = 'regular' | 'before-migration';

const DAY_MS = 86_400_000;
const PATTERN = /^karyotome(-before-migration)?-(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z\.zip$/;

/** @param at - the moment that the backup shows */
export function backupName(kind: BackupKind, at: Date): string {
  const stamp = at.toISOString().slice(0, 19).replaceAll(/[-:]/g, '');
  return `karyotome${kind === 'regular' ? '' : '-before-migration'}-${stamp}Z.zip`;
}

/** @returns null for a file that is no backup of ours, which is left alone */
export function readBackupName(name: string): { kind: BackupKind; at: Date } | null {
  const match = PATTERN.exec(name);
  if (!match) return null;
  const [year, month, day, hour, minute, second] = match.slice(2).map(Number);
  const at = new Date(Date.UTC(year!, month! - 1, day, hour, minute, second));
  return { kind: match[1] ? 'before-migration' : 'regular', at };
}

/** Days since 1970-01-01, a Thursday: weeks begin on Monday, as ISO 8601 has them. */
const weekOf = (at: Date): number => Math.floor((Math.floor(at.getTime() / DAY_MS) + 3) / 7);

/**
 * @param names - of all files in the folder
 * @returns those that may go
 */
export function backupsToRemove(names: readonly string[]): string[] {
  const backups = names
    .map((name) => ({ name, ...readBackupName(name) }))
    .filter((backup): backup is { name: string; kind: BackupKind; at: Date } => backup.at !== undefined)
    .toSorted((a, b) => b.at.getTime() - a.at.getTime());
  const regular = backups.filter(({ kind }) => kind === 'regular');
  const kept = new Set(
    backups.filter(({ kind }) => kind === 'before-migration').slice(0, KEPT_BEFORE_MIGRATION),
  );
  const keepNewest = (count: number, periodOf: (at: Date) => string | number): void => {
    const periods = new Set<string | number>();
    for (const backup of regular) {
      const period = periodOf(backup.at);
      if (periods.has(period)) continue;
      if (periods.size === count) return;
      periods.add(period);
      kept.add(backup);
    }
  };
  keepNewest(KEPT.days, (at) => at.toISOString().slice(0, 10));
  keepNewest(KEPT.weeks, weekOf);
  keepNewest(KEPT.months, (at) => at.toISOString().slice(0, 7));
  return backups.filter((backup) => !kept.has(backup)).map(({ name }) => name);
}
