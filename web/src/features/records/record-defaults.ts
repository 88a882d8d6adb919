import type { NewRecord, RecordBodies, RecordKind } from '@karyotome/contract';
import { PREY_SIZES } from '@karyotome/core';
import { localToday } from '../../format/format.ts';

export const KIND_WORDS: Readonly<Record<RecordKind, string>> = {
  weight: 'Weight',
  feeding: 'Meal',
  shed: 'Shed',
  sex: 'Sex',
  identification: 'Identification',
  move: 'Move',
  note: 'Private note',
};

/** An empty record of a kind, as its form begins. */
export function emptyRecord(
  kind: RecordKind,
  by: string,
  prey?: { species: 'rat' | 'mouse'; size: string; preyG: number } | null,
): NewRecord {
  const bodies: { [K in RecordKind]: RecordBodies[K] } = {
    weight: { massG: null as never },
    feeding: {
      species: prey?.species ?? 'rat',
      size: prey?.size ?? 'pup',
      preyG: null,
      state: 'frozen-thawed',
      taken: true,
    },
    shed: { stage: 'shed', complete: true, eyeCaps: true },
    sex: { sex: null as never, method: 'popped', sure: 'certain', by },
    identification: { genes: '', sure: 'certain', by, override: null },
    move: { toTubId: null, reason: '' },
    note: { text: '' },
  };
  return { kind, on: localToday(), body: bodies[kind], note: null } as NewRecord;
}

/** What is sent: a shed sign says nothing of completeness yet. */
export function readyToSend(record: NewRecord): NewRecord {
  if (record.kind !== 'shed' || record.body.stage === 'shed') return record;
  return { ...record, body: { stage: record.body.stage } };
}

/** The prey sizes of a species, smallest first. */
export function sizesOf(species: string): string[] {
  const sizes = PREY_SIZES.filter((prey) => prey.species === species).map((prey) => prey.size);
  return sizes.length > 0 ? sizes : ['small', 'medium', 'large'];
}
