import type { RecordKind, RecordView } from '@karyotome/contract';

/** The newest record of a kind that was not voided. @param records - the newest first */
export const standingRecord = <Kind extends RecordKind>(
  records: readonly RecordView[],
  kind: Kind,
): Extract<RecordView, { kind: Kind }> | undefined =>
  records.find(
    (record): record is Extract<RecordView, { kind: Kind }> => record.kind === kind && record.voided === null,
  );
