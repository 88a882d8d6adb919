import { select, type Work } from '../src/db/work.ts';

/** What is stored of an animal for a day. */
export interface Stored {
  readonly id: string;
  readonly facts: unknown;
  readonly tasks: readonly unknown[];
}

/** All states that stand, with their tasks, by animal. */
export async function storedStates(work: Work): Promise<Map<string, Stored>> {
  const rows = await select<Stored>(
    work,
    `select s.animal_id as id, s.facts, (
       select coalesce(json_agg(json_build_object('ordinal', d.ordinal, 'act', d.act, 'kind', d.kind,
         'urgency', d.urgency, 'clutchId', d.clutch_id, 'prey', d.prey, 'task', d.task) order by d.ordinal), '[]')
         from due_tasks d where d.collection_id = s.collection_id and d.day = s.day and d.animal_id = s.animal_id) as tasks
       from animal_states s
      where s.collection_id = :collectionId and s.day = :today and s.computed_for = s.changes`,
    { today: work.today },
  );
  return new Map(rows.map((row) => [row.id, row]));
}
