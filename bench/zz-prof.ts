import http from 'node:http';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import pg from 'pg';
import { Client, launch } from '/work/main/bench/launch.ts';
import { startPostgres } from '/work/main/scripts/postgres.mjs';
import { databaseUrl } from '/work/main/server/test/template.ts';
const what = process.argv[2]!; const n = Number(process.argv[3] ?? 100); const conc = Number(process.argv[4] ?? 1);
const server = (await startPostgres('bench', () => undefined)).url('postgres');
const url = databaseUrl(server, 'bench_1000');
const c = new pg.Client(url); await c.connect();
const ids = (await c.query('select id from animals order by number')).rows.map((r: any) => r.id);
const racks = (await c.query('select id from racks order by name')).rows.map((r: any) => r.id);
await c.end();
const dir = mkdtempSync('/tmp/prof-');
process.env.NODE_PROF = dir;
const running = await launch(url, mkdtempSync('/tmp/profd-'));

const agent = new http.Agent({ keepAlive: true, maxSockets: conc });
const client = await Client.signIn(running.origin, agent);
let turn = 0; const next = (l: string[]) => l[(turn++ * 37) % l.length]!;
const one = () => what === 'write' ? client.post(`/animals/${next(ids)}/records`, { kind: 'weight', on: new Date().toISOString().slice(0,10), body: { massG: 1400 + (turn % 60) } }) : client.get(what.replace(':id', next(ids)).replace(':rack', next(racks)));
for (let i = 0; i < 10; i++) await one();
const start = performance.now();
await Promise.all(Array.from({ length: conc }, async () => { for (let i = 0; i < n / conc; i++) await one(); }));
console.log(what, ((performance.now() - start) / n).toFixed(2), 'ms each');
await running.stop();
const self = new Map<string, number>(); const total = new Map<string, number>();
let sum = 0;
for (const f of readdirSync(dir).sort()) {
  const p = JSON.parse(readFileSync(`${dir}/${f}`, 'utf8'));
  if (!/\.0\.\d+\.cpuprofile$/.test(f) && !f.includes('.0.')) continue;
  const nodes = new Map(p.nodes.map((x: any) => [x.id, x]));
  const parent = new Map(); for (const x of p.nodes) for (const ch of x.children ?? []) parent.set(ch, x.id);
  const dt = p.timeDeltas; 
  p.samples.forEach((id: number, i: number) => {
    const nd: any = nodes.get(id); const name = `${nd.callFrame.functionName || '(anon)'} ${nd.callFrame.url.split('/').slice(-2).join('/')}:${nd.callFrame.lineNumber}`;
    if (nd.callFrame.functionName === '(idle)' || nd.callFrame.functionName === '(program)') return;
    self.set(name, (self.get(name) ?? 0) + dt[i]); sum += dt[i];
    const seen = new Set(); let at: number | undefined = id;
    while (at !== undefined) { const q: any = nodes.get(at); const nm = `${q.callFrame.functionName || '(anon)'} ${q.callFrame.url.split('/').slice(-2).join('/')}:${q.callFrame.lineNumber}`; if (!seen.has(nm)) { seen.add(nm); total.set(nm, (total.get(nm) ?? 0) + dt[i]); } at = parent.get(at); }
  });
}
const byPackage = new Map<string, number>();
for (const f of readdirSync(dir)) { if (!f.includes('.0.')) continue; const p = JSON.parse(readFileSync(`${dir}/${f}`, 'utf8')); const nodes = new Map(p.nodes.map((x: any) => [x.id, x])); const parent = new Map(); for (const x of p.nodes) for (const ch of x.children ?? []) parent.set(ch, x.id);
 p.samples.forEach((id: number, i: number) => { let at: number | undefined = id; let label = ''; while (at !== undefined) { const q: any = nodes.get(at); const u = q.callFrame.url as string; if (q.callFrame.functionName === '(idle)' || q.callFrame.functionName === '(program)') return; const m = /node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(u); if (m) { label = m[1]!; break; } if (u.includes('/server/dist/')) { label = 'own'; break; } at = parent.get(at); } if (label === '') label = 'node:' + ((nodes.get(id) as any).callFrame.functionName); byPackage.set(label, (byPackage.get(label) ?? 0) + p.timeDeltas[i]); }); }
const top = (m: Map<string, number>, k: number) => [...m].sort((a, b) => b[1] - a[1]).slice(0, k).forEach(([nm, t]) => console.log((t / 1000 / n).toFixed(2).padStart(8), 'ms/req', nm));
console.log('cpu', (sum / 1000 / n).toFixed(2), 'ms/req main'); console.log('--package'); top(byPackage, 22); console.log('--self'); top(self, 25); console.log('--total'); top(total, 60);
process.exit(0);
