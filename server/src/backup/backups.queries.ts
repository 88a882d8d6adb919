import type { BackupFault, BackupView } from '@karyotome/contract';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { rfc3339 } from '../db/statement.ts';
import type { MadeBackup } from './make-backup.ts';
import type { BackupKind } from './rotation.ts';
import { BACKUP_RUNS_SQL } from './snapshot.queries.ts';

/** Notes what came of a backup. */
export async function noteBackup(
  sequelize: Sequelize,
  kind: BackupKind,
  folder: string,
  made: MadeBackup | { readonly fault: BackupFault },
): Promise<void> {
  const whole = 'fault' in made ? null : made;
  await sequelize.query(
    `insert into backups (kind, folder, file, made_at, bytes, rows, files, missing, fault)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    {
      bind: [
        kind,
        folder,
        whole?.file ?? null,
        whole?.madeAt ?? null,
        whole?.bytes ?? null,
        whole?.rows ?? null,
        whole?.files ?? null,
        whole?.missing.length ?? null,
        'fault' in made ? made.fault : null,
      ],
    },
  );
  // A year of nights: what is older tells nobody anything.
  await sequelize.query("delete from backups where ended_at < now() - interval '400 days'");
}

/** The last whole backup, and the failure after it where there is one. */
export async function lastBackups(
  sequelize: Sequelize,
  transaction: Transaction | null = null,
): Promise<Pick<BackupView, 'last' | 'failed'>> {
  const [row] = await sequelize.query<Pick<BackupView, 'last' | 'failed'>>(
    `select
       (select jsonb_build_object('madeAt', ${rfc3339('made_at')}, 'folder', folder, 'file', file, 'bytes', bytes,
                                  'rows', rows, 'files', files, 'missing', missing)
          from backups where fault is null order by made_at desc limit 1) as last,
       (select jsonb_build_object('at', ${rfc3339('ended_at')}, 'fault', fault)
          from backups b
         where fault is not null
           and not exists (select from backups later where later.fault is null and later.ended_at > b.ended_at)
         order by ended_at desc limit 1) as failed`,
    { type: QueryTypes.SELECT, transaction },
  );
  return row!;
}

/** Whether a backup is being made, in whatever process, on whatever machine. */
export async function isBackupRunning(sequelize: Sequelize): Promise<boolean> {
  const [row] = await sequelize.query<{ isRunning: boolean }>(BACKUP_RUNS_SQL, { type: QueryTypes.SELECT });
  return row!.isRunning;
}
