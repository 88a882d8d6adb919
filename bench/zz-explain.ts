import pg from 'pg';
import { startPostgres } from '../scripts/postgres.mjs';
import { databaseUrl } from '../server/test/template.ts';
const server = (await startPostgres('tests', () => undefined)).url('postgres');
const c = new pg.Client(databaseUrl(server, 'bench_1000')); await c.connect();
const { rows: [a] } = await c.query("select collection_id, id from animals where number='B-00500'");
const sql = `select r.id, r.animal_id as "animalId", r.kind, r.on_day as "on", r.body, r.note, who.name as author,
            r.recorded_at as "recordedAt", b.name as "from",
            case when r.voided_at is null then null else json_build_object(
              'at', r.voided_at, 'by', voider.name, 'reason', r.void_reason, 'replacedBy', r.replaced_by) end as voided
       from records r
       join accounts who on who.id = r.author_id
       left join accounts voider on voider.id = r.voided_by
       left join taken_statements t on t.collection_id = r.collection_id and t.id = r.taken_id
       left join breeders b on b.collection_id = t.collection_id and b.id = t.breeder_id
      where r.collection_id = $1 and r.animal_id in ($2)
      order by r.on_day desc, r.recorded_at desc`;
console.log((await c.query('explain (analyze, buffers) ' + sql, [a.collection_id, a.id])).rows.map((r: any) => r['QUERY PLAN']).join('\n'));
const t = performance.now(); for (let i = 0; i < 20; i++) await c.query(sql, [a.collection_id, a.id]); console.log((performance.now() - t) / 20);
process.exit(0);
