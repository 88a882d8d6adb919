import type { ContradictionView, DoubtfulRecordView, Page, SuspectView } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { geneticsActs } from './genetics-acts.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

const { ago, created, founder, young, read } = geneticsActs(() => owner);
const identify = (animalId: string, on: string, genes: string, by: string, sure = 'certain') =>
  created(`/animals/${animalId}/records`, { kind: 'identification', on, body: { genes, sure, by } });
const suspects = async () => (await read<Page<SuspectView>>('/suspects?limit=200')).items;
const doubtful = async () => (await read<Page<DoubtfulRecordView>>('/doubtful-records?limit=200')).items;

describe('records to look at again', () => {
  test('are none where nothing contradicts', async () => {
    expect(await suspects()).toEqual([]);
    expect(await doubtful()).toEqual([]);
  });

  test('are listed over all contradictions, with those that are enough; looked at again, everything agrees', async () => {
    const dam = await founder('SD-1', 'female', 'normal');
    const sire = await founder('SS-1', 'male', 'super pastel super enchi');
    for (const n of [1, 2, 3, 4]) await young(`SY-${n}`, dam, sire, 'pastel enchi');
    const odd = [
      await young('SY-5', dam, sire, 'enchi'),
      await young('SY-6', dam, sire, 'enchi'),
      await young('SY-7', dam, sire, 'pastel'),
    ];
    expect((await read<Page<ContradictionView>>('/contradictions')).items).toHaveLength(2);
    const listed = await suspects();
    const enough = listed.filter(({ isEnough }) => isEnough);
    expect(enough.map(({ record, locusName }) => `${record.animalNumber} ${locusName}`).toSorted()).toEqual([
      'SY-5 Pastel',
      'SY-6 Pastel',
      expect.stringMatching(/^SY-7 .*Enchi/),
    ]);
    for (const one of enough) {
      expect(one.pWrong).toBeGreaterThan(0.9);
      expect(one.record.sure).toBe('certain');
      expect(one.settles).toBeGreaterThanOrEqual(0);
      expect(one.settles).toBeLessThanOrEqual(1);
    }
    for (const id of odd) await identify(id, ago(0), 'pastel enchi', 'Ida');
    expect((await read<Page<ContradictionView>>('/contradictions')).items).toEqual([]);
    expect(await suspects()).toEqual([]);
  });
});

describe('doubtful records', () => {
  test('are those of somebody whose calls of that gene mostly proved wrong', async () => {
    const dam = await founder('DD-1', 'female', 'normal');
    const sire = await founder('DS-1', 'male', 'fire');
    const clutch: string[] = [];
    for (let n = 1; n <= 11; n++)
      clutch.push(
        await created('/animals', {
          number: `DY-${n}`,
          sex: 'unknown',
          damId: dam,
          sireId: sire,
          hatchedOn: ago(300),
        }),
      );
    for (const id of clutch) await identify(id, ago(200), 'fire', 'Odo');
    expect(await doubtful()).toEqual([]);
    // Ten of the eleven are looked at again by somebody who is certain: nine are not what they were called.
    for (const [n, id] of clutch.slice(0, 10).entries())
      await identify(id, ago(20), n === 0 ? 'fire' : 'normal', 'Ida');
    const found = await doubtful();
    expect(found.map(({ record }) => record.animalNumber)).toEqual(['DY-11']);
    expect(found[0]!.record).toMatchObject({ by: 'Odo', label: 'Fire', sure: 'certain' });
    // By hand: 1 right of 10 leaves an error of 1 - 2/12, shared by two other looks; fire and normal are as likely by birth.
    const error = 1 - 2 / 12;
    expect(found[0]!.pWrong).toBeCloseTo(error / 2 / (error / 2 + (1 - error)), 8);
    expect(await suspects()).toEqual([]);
  });
});
