import { QueryTypes } from 'sequelize';
import type { Database, Work } from '../../db/work.ts';
import { livingSql } from '../animals/living-sql.ts';

const SAVE_SQL = `
  with given as (select * from json_to_recordset($1::json) as g (id uuid, changes bigint, sex text,
         age_days double precision, off_curve double precision, plan_id text, is_shedding boolean, is_meal_day boolean, in_quarantine boolean, is_away boolean,
         is_health_case boolean,
         board text, board_order smallint, mass_g double precision, facts json, tasks json)),
  free as (
    -- Whoever changes one of these just now makes it stale again; it is left to the next.
    select s.animal_id from animal_states s join given g on g.id = s.animal_id
     where s.collection_id = $2 and s.day = $3 and s.computed_for < g.changes
     order by s.animal_id for no key update of s skip locked),
  kept as (
    update animal_states s set computed_for = g.changes, sex = g.sex, age_days = g.age_days, off_curve = g.off_curve,
           plan_id = g.plan_id, is_shedding = g.is_shedding, is_meal_day = g.is_meal_day, in_quarantine = g.in_quarantine, is_away = g.is_away,
           is_health_case = g.is_health_case, board = g.board,
           board_order = g.board_order, mass_g = g.mass_g, facts = g.facts
      from given g join free f on f.animal_id = g.id
     where s.collection_id = $2 and s.day = $3 and s.animal_id = g.id
    returning s.animal_id),
  cleared as (
    delete from due_tasks d using kept k where d.collection_id = $2 and d.day = $3 and d.animal_id = k.animal_id)
  insert into due_tasks (collection_id, day, animal_id, ordinal, act, kind, urgency, place_key, clutch_id, prey, task)
  select $2, $3, g.id, t.ordinal, t.act, t.kind, t.urgency, t.place_key, t.clutch_id, t.prey, t.task
    from given g join kept k on k.animal_id = g.id
    cross join lateral json_to_recordset(g.tasks) as t (ordinal smallint, act text, kind text, urgency smallint,
      place_key text, clutch_id uuid, prey text, task json)`;

/**
 * Stores computed states with their tasks, in one statement. One that was computed from more than what is given stays as it
 * is; one that was changed meanwhile is stored and stays stale.
 *
 * @param states - as `statesToText` writes them
 */
export async function saveStates(
  { sequelize }: Database,
  collectionId: string,
  day: string,
  states: string,
): Promise<void> {
  await sequelize.query(SAVE_SQL, { bind: [states, collectionId, day] });
}

/** Begins a day: what was fitted for it, and a row for each animal, to be computed. */
export async function insertDay(
  work: Work,
  day: string,
  fit: { readonly growth: object; readonly appetite: object } | { readonly asOn: string },
): Promise<void> {
  const { collectionId } = work.actor;
  const [values, bind] =
    'asOn' in fit
      ? [
          `select collection_id, $2, growth, appetite from herd_days where collection_id = $1 and day = $3`,
          [fit.asOn],
        ]
      : ['values ($1, $2, $3, $4)', [JSON.stringify(fit.growth), JSON.stringify(fit.appetite)]];
  await work.sequelize.query(
    `insert into herd_days (collection_id, day, growth, appetite) ${values} on conflict do nothing`,
    { transaction: work.transaction, bind: [collectionId, day, ...bind] },
  );
  await work.sequelize.query(
    `insert into animal_states (collection_id, animal_id, day)
     select collection_id, id, $2 from animals where collection_id = $1 and ${livingSql()} on conflict do nothing`,
    { transaction: work.transaction, bind: [collectionId, day] },
  );
}

/** Collections that somebody looked at lately. */
export async function collectionsAtWork({ sequelize }: Database): Promise<string[]> {
  const rows = await sequelize.query<{ id: string }>(
    `select distinct collection_id as id from herd_days where day >= current_date - 2`,
    { type: QueryTypes.SELECT },
  );
  return rows.map(({ id }) => id);
}

/** Removes what was computed for days that are over. */
export async function removeDaysBefore(
  { sequelize }: Database,
  collectionId: string,
  day: string,
): Promise<void> {
  await sequelize.query(
    // The last one stays: its fit is what the next day begins with where nobody prepared it.
    `delete from herd_days where collection_id = $1 and day < $2
        and day < (select max(day) from herd_days where collection_id = $1)`,
    { bind: [collectionId, day] },
  );
}
