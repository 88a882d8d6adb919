import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { addDays, concerns, daysBetween, Growth, parsePedigree, type History } from '@karyotome/core';
import { verifyFile, type Statement, type Verification } from '@karyotome/lineage';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { canonical, genotypeKey } from '../../core/src/loci/genotype.ts';
import { enumeratePosterior } from '../../core/test/enumerate.ts';
import { loadDemo } from '../src/demo/demo.ts';
import { CLUTCHES, FARM } from '../src/demo/plan.ts';
import { SEASON } from '../src/demo/season-plan.ts';
import { machineToday, reading, type Work } from '../src/db/work.ts';
import { listAnimals } from '../src/domain/animals/animals.service.ts';
import { viewAnimal } from '../src/domain/animals/view-animal.ts';
import { listPairings } from '../src/domain/season/pairings.service.ts';
import { listContradictions } from '../src/domain/genetics/contradictions.service.ts';
import { geneticsOf } from '../src/domain/genetics/genetics.service.ts';
import { basisOf } from '../src/domain/states/day-basis.ts';
import { keptAnimalsOf } from '../src/domain/states/kept-animals.ts';
import { livingIds } from '../src/domain/states/kept-animals.queries.ts';
import { viewPlanner } from '../src/features/planner/planner.service.ts';
import {
  boardFemales,
  boardInOrder,
  boardMales,
  relatedMates,
  viewBoard,
} from '../src/domain/season/board.service.ts';
import { viewToday } from '../src/domain/today/today.service.ts';
import { startTestApp, type TestApp } from './test-app.ts';

let app: TestApp;
const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-demo-'));
/** Something read as the demo's owner. */
async function asOwner<T>(read: (work: Work) => Promise<T>): Promise<T> {
  const account = (await app.database.models.accounts.findOne({ where: { email: FARM.email } }))!.get();
  const { collectionId } = (await app.database.models.memberships.findOne({
    where: { accountId: account.id },
  }))!.get();
  return reading(
    app.database,
    { accountId: account.id, name: account.name, collectionId, role: 'owner' },
    read,
  );
}

/** A record as it stood on a day. */
function asOf(history: History, day: string): History {
  const then = <T extends { on: string }>(records: readonly T[]): T[] =>
    records.filter(({ on }) => on <= day);
  return {
    ...history,
    weights: then(history.weights),
    feedings: then(history.feedings),
    sheds: then(history.sheds),
    moves: then(history.moves),
    care: then(history.care ?? []),
  };
}

beforeAll(async () => {
  app = await startTestApp();
  await loadDemo(app.database, app.files, { dataDir, signingSecret: 'only-for-tests' });
});
afterAll(async () => {
  await app.close();
  rmSync(dataDir, { recursive: true, force: true });
});

describe('the demo farm', () => {
  test('has some eighty living animals of three generations and a dozen clutches over three seasons', async () => {
    const animals = await asOwner(listAnimals);
    const living = animals.filter((a) => a.status !== 'sold' && a.status !== 'died');
    expect(living.length).toBeGreaterThanOrEqual(60);
    expect(living.length).toBeLessThanOrEqual(88);
    const clutches = (await asOwner(listPairings)).flatMap((pairing) => pairing.clutches);
    // With the pair of the bench: last year's clutch, and the one that waits.
    expect(clutches).toHaveLength(CLUTCHES.length + SEASON.filter((plan) => plan.laid).length + 2);
    expect(clutches.filter((clutch) => clutch.hatchedOn === null)).toHaveLength(3);
    expect(clutches.filter((clutch) => clutch.hatchedOn !== null && clutch.identified === 0)).toHaveLength(2);
    const listed = animals.filter((animal) => animal.published);
    const pages = await Promise.all(listed.map(({ id }) => asOwner((work) => viewAnimal(work, id))));
    expect(pages.some((page) => page.parents.some((parent) => parent.parents.length > 0))).toBe(true);
  });

  test('tells its stories: every kind of advice, a snake in blue, a bad shed, a fasting male', async () => {
    const { lines, today } = await asOwner(viewToday);
    expect(today).toBe(machineToday());
    const verdicts = new Set(lines.map((line) => line.advice?.verdict));
    expect(verdicts).toContain('move-up');
    expect(verdicts).toContain('go-back');
    // Staying is nothing to do: a mark beside what else is due, and told on the animal's page.
    expect(verdicts).not.toContain('hold');
    const all = await asOwner(listAnimals);
    const advice = await Promise.all(
      all.map(async ({ id }) => (await asOwner((work) => viewAnimal(work, id))).advice),
    );
    expect(advice.map(({ verdict }) => verdict)).toContain('hold');
    expect(lines).toContainEqual(
      expect.objectContaining({
        code: 'shed-due',
        facts: expect.objectContaining({ stage: 'blue' }) as object,
      }),
    );
    expect(
      lines.some((line) => line.code === 'soak-due' && ['caps', 'both'].includes(line.facts.remains)),
    ).toBe(true);
    expect(advice.flatMap(({ reasons }) => reasons.map(({ code }) => code))).toContain('shy-feeder');
    const male = all.find((animal) => animal.number === 'M-03')!;
    const { appetite } = await asOwner((work) => viewAnimal(work, male.id));
    expect(daysBetween(appetite.lastTakenOn!, today)).toBeGreaterThan(60);
  });

  test('is quiet: at its size, a healthy collection of 300 would have a handful of alarms a week', async () => {
    const WEEKS = 26;
    const { fresh, animals } = await asOwner(async (work) => {
      const { appetite: baseline, growth } = await basisOf(work);
      const kept = await keptAnimalsOf(work, await livingIds(work));
      let count = 0;
      for (const animal of kept.values()) {
        let before = true;
        for (let week = WEEKS; week >= 0; week--) {
          const day = addDays(work.today, -7 * week);
          const history = asOf(animal.history, day);
          const subject = { ...animal, weights: history.weights, feedings: history.feedings };
          const lastSurprise = Growth.knows(subject) ? new Growth(subject, growth).lastSurprise : null;
          const now = concerns({ ...animal, history, lastSurprise }, baseline, day).length > 0;
          if (now && !before) count += 1;
          before = now;
        }
      }
      return { fresh: count, animals: kept.size };
    });
    const aWeekIn300 = (fresh / WEEKS) * (300 / animals);
    expect(aWeekIn300).toBeLessThan(5);
  });

  test('has a season with a female in every stage, and waits that rest on clutches of its own', async () => {
    const board = await asOwner(viewBoard);
    const females = await asOwner(async (work) => boardFemales(work, await boardInOrder(work, 'female')));
    const males = await asOwner(async (work) => boardMales(work, await boardInOrder(work, 'male')));
    const stages = females.map(({ pairing }) => pairing?.forecast.stage ?? 'open');
    for (const stage of ['open', 'together', 'apart', 'ovulated', 'pre-lay', 'laid'])
      expect(stages).toContain(stage);
    expect(board.learned.shedToEggs).toBeGreaterThanOrEqual(10);
    expect(board.learned.eggsToPip).toBeGreaterThanOrEqual(9);
    expect(females.some(({ pairing }) => pairing?.sires.some(({ stored }) => stored))).toBe(true);
    // A mother and her son: kinship 1/4 (Falconer & Mackay 1996, from memory).
    const marrow = females.find(({ number }) => number === 'F-02')!;
    const son = males.find(({ number }) => number.startsWith('2402'))!;
    const related = await asOwner((work) => relatedMates(work, marrow.id));
    expect(related).toContainEqual({ id: son.id, inbreeding: 0.25 });
    expect(related.every(({ inbreeding }) => inbreeding > board.rules.inbreedingBound)).toBe(true);
    expect(board.females).toMatchObject({ together: expect.any(Number) as number });
    expect(Object.values(board.females).reduce((sum, count) => sum + count)).toBe(females.length);
    const { lines } = await asOwner(viewToday);
    const kinds = new Set(lines.map(({ kind }) => kind));
    for (const kind of ['eggs', 'season', 'climate'] as const) expect(kinds).toContain(kind);
  });

  test('has a clutch of two possible sires, in which the genes have told some', async () => {
    const genetics = await asOwner(geneticsOf);
    const settled = [...genetics.posterior.sires.values()].filter(
      (sires) => Math.max(...sires.values()) > 1 - 1e-9,
    );
    expect(genetics.posterior.sires.size).toBe(7);
    expect(settled.length).toBeGreaterThan(0);
  });

  test('contradicts itself in one place only: a slip, which the ranking names first', async () => {
    const found = await asOwner(listContradictions);
    expect(found).toHaveLength(1);
    const [first] = found[0]!.explanations;
    expect(first).toMatchObject({ kind: 'identification' });
    expect(first!.share).toBeGreaterThan(0.5);
    expect(found[0]!.explanations.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
  });

  test('plans with what was seen of an animal, where its gene’s records contradict one another elsewhere', async () => {
    const { animals } = await asOwner(viewPlanner);
    const lociOf = (number: string) =>
      animals.find((one) => one.number === number)!.loci.map(([locus]) => locus);
    // Pastel is contradicted by the slip in another family; Bramble shows it all the same.
    expect(lociOf('F-07')).toEqual(expect.arrayContaining(['pastel', 'clown']));
  });

  test('has a possible carrier that her young proved, and one that they all but ruled out', async () => {
    const claims = async (number: string) => {
      const animal = (await asOwner(listAnimals)).find((one) => one.number === number)!;
      return (await asOwner((work) => viewAnimal(work, animal.id))).claims;
    };
    const proved = (await claims('F-01')).find(({ allele }) => allele === 'ultramel')!;
    expect(proved).toMatchObject({ kind: 'sure-carrier', certain: true });
    expect(proved.rule).toBe('offspring-show-it');
    const doubted = (await claims('F-05')).find(({ allele }) => allele === 'ultramel')!;
    expect(doubted.p).toBeLessThan(0.1);
  });

  test('has one of two look-alikes that a double among the young settled', async () => {
    const animal = (await asOwner(listAnimals)).find(({ number }) => number === 'F-03')!;
    expect(animal.label).toBe('Gravel');
    const { claims, records } = await asOwner((work) => viewAnimal(work, animal.id));
    expect(records.find(({ kind }) => kind === 'identification')!.body).toMatchObject({
      genes: 'Gravel or Specter',
    });
    expect(claims.find(({ allele }) => allele === 'gravel')).toMatchObject({ certain: true });
  });

  test('has a pair of twins of half size', async () => {
    const [rows] = await app.database.sequelize.query(
      `select (select min((w.body ->> 'massG')::float) from records w where w.animal_id = r.animal_id and w.kind = 'weight') as g
         from records r where r.kind = 'note' and r.body ->> 'text' like 'Twin%'`,
    );
    expect(rows).toHaveLength(2);
    for (const { g } of rows as { g: number }[]) expect(g).toBeLessThan(35);
  });

  test('has signed statements that anybody can derive again', async () => {
    const rows = await app.database.models.statements.findAll();
    expect(rows).toHaveLength(3);
    for (const row of rows) {
      const found = (await verifyFile(Buffer.from(row.get().document))) as Verification;
      expect(found.problems).toEqual([]);
      expect(found.claims.length).toBeGreaterThan(0);
    }
  });

  test('states what adding up every assignment of genotypes gives, too', async () => {
    const rows = await app.database.models.statements.findAll();
    for (const row of rows) {
      const { credentialSubject } = JSON.parse(row.get().document) as Statement;
      const pedigree = parsePedigree(credentialSubject.pedigree);
      // Where every sire is certain, loci do not depend on one another: each is added up by itself.
      expect(pedigree.animals.every(({ sires = [] }) => sires.length <= 1)).toBe(true);
      for (const { animal, locus, genotypes, p } of credentialSubject.claims) {
        const slow = enumeratePosterior({
          ...pedigree,
          loci: pedigree.loci.filter(({ id }) => id === locus),
        });
        const sum = genotypes.reduce(
          (total, [a, b]) =>
            total + (slow.genotypes.get(`${animal}|${locus}|${genotypeKey(canonical(a, b))}`) ?? 0),
          0,
        );
        expect(sum).toBeCloseTo(p, 6);
      }
    }
  });
});
