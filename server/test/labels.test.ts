import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BenchView, LabelPreview } from '@karyotome/contract';
import { LABEL_SIZES } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { drawLabel } from '../src/features/labels/draw-label.ts';
import { LABEL_STOCK } from '../src/features/labels/label-sizes.ts';
import { widthOf } from '../src/print/typeface.ts';
import { readCode } from './read-code.ts';
import { fieldsOf, startTestApp, type TestApp, type TestClient } from './test-app.ts';

let app: TestApp;
let owner: TestClient;
let clutch: string;
let young: string[];
const folder = mkdtempSync(join(tmpdir(), 'labels-'));
const ago = (days: number): string => addDays(machineToday(), -days);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  const created = async (
    path: string,
    body: object,
    headers = {},
  ): Promise<{ id: string; ids: string[] }> => {
    const response = await owner.post(path, body, headers);
    expect(response.status, JSON.stringify(response.body)).toBe(201);
    return response.body as { id: string; ids: string[] };
  };
  const dam = await created('/animals', { number: 'D-1', sex: 'female', genes: 'Pastel het Clown' });
  const sire = await created('/animals', { number: 'S-1', sex: 'male', genes: 'Enchi Orange Dream' });
  const pairing = await created('/pairings', {
    season: 2026,
    damId: dam.id,
    sires: [{ animalId: sire.id, weight: 1 }],
    startedOn: ago(200),
  });
  clutch = (await created('/clutches', { pairingId: pairing.id, laidOn: ago(80), eggs: 3 })).id;
  young = (
    await created(`/clutches/${clutch}/hatchlings`, { hatchedOn: ago(20), hatched: 3 }, { 'If-Match': '"1"' })
  ).ids;
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

/** The PDF as poppler's tools read it: its text, and its first page as a picture. */
async function printed(order: object): Promise<{ text: string; page: Buffer; pages: number }> {
  const made = await owner.post('/labels', order);
  expect(made.status, JSON.stringify(made.body)).toBe(201);
  const pdf = (await owner.get(`/labels/${(made.body as { id: string }).id}`)).body as Buffer;
  const file = join(folder, 'labels.pdf');
  writeFileSync(file, pdf);
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  execFileSync('pdftoppm', ['-r', '300', '-png', '-singlefile', file, join(folder, 'page')]);
  const pages = Number(/Pages:\s+(\d+)/.exec(execFileSync('pdfinfo', [file], { encoding: 'utf8' }))![1]);
  return { text, page: readFileSync(join(folder, 'page.png')), pages };
}

const hatchling = async (at: number) =>
  ((await owner.get(`/clutches/${clutch}/bench`)).body as BenchView).hatchlings[at]!;

describe('labels', () => {
  test('numbers first, one page each on a roll, the code leading to the record', async () => {
    const { text, page, pages } = await printed({ animalIds: young, kind: 'numbers', size: 'roll-57x32' });
    expect(pages).toBe(3);
    expect(text).toContain('2601-01');
    expect(text).not.toContain('Pastel');
    const code = await readCode(page);
    expect(code).toMatch(new RegExp(`^http://[^/]+/animals/${young[0]}\\?label=1$`));
    expect((await hatchling(0)).printedLabel).toMatchObject({
      issue: 1,
      kind: 'numbers',
      isOutOfDate: false,
    });
  });

  test('after the identification the old one is out of date, and the new one says everything', async () => {
    await owner.post(`/animals/${young[0]}/records`, {
      kind: 'identification',
      on: ago(5),
      body: { genes: 'Pastel Enchi (Orange Dream)', sure: 'probable', by: 'Ida' },
    });
    expect((await hatchling(0)).printedLabel!.isOutOfDate).toBe(true);
    expect((await hatchling(1)).printedLabel!.isOutOfDate).toBe(false);
    const { text } = await printed({ animalIds: [young[0]], kind: 'full', size: 'roll-76x51' });
    const words = text.replace(/\s+/g, ' ');
    for (const part of [
      '2601-01',
      'Pastel',
      'Enchi',
      '50% het Clown',
      '(Orange Dream)',
      `hatched ${ago(20)}`,
      'S-1 × D-1',
    ])
      expect(words).toContain(part);
    expect((await hatchling(0)).printedLabel).toMatchObject({ issue: 2, kind: 'full', isOutOfDate: false });
    await owner.post(`/animals/${young[0]}/records`, {
      kind: 'sex',
      on: ago(4),
      body: { sex: 'male', method: 'popped', sure: 'certain', by: 'Ida' },
    });
    expect((await hatchling(0)).printedLabel!.isOutOfDate).toBe(true);
  });

  test('a sheet begins at its first free place, and says so where there is none', async () => {
    const order = { animalIds: young, kind: 'full', size: 'a4-3x7', skip: 20 };
    const { page, pages } = await printed(order);
    expect(pages).toBe(2);
    // The last place of the first sheet, 300 dots an inch: its code can be read there and nowhere else.
    const px = (mm: number): number => Math.round((mm / 25.4) * 300);
    const { sheet, widthMm, heightMm } = LABEL_STOCK['a4-3x7'];
    const last = {
      left: px(sheet!.leftMm + 2 * sheet!.stepXMm),
      top: px(sheet!.topMm + 6 * sheet!.stepYMm),
      width: px(widthMm),
      height: px(heightMm),
    };
    expect(await readCode(page, last)).toContain(young[0]);
    expect(fieldsOf(await owner.post('/labels', { ...order, skip: 21 }))).toEqual([
      'skip: must be below 21, the places of one sheet',
    ]);
  });

  test('the preview shows what is printed, and prints nothing', async () => {
    const order = { animalIds: young, kind: 'full', size: 'letter-3x10' };
    const preview = (await owner.post('/labels/preview', order)).body as LabelPreview;
    expect(preview.labels.map(({ number }) => number)).toEqual(['2601-01', '2601-02', '2601-03']);
    const issue = (await hatchling(2)).printedLabel!.issue;
    await owner.post('/labels/preview', order);
    expect((await hatchling(2)).printedLabel!.issue).toBe(issue);
    expect(fieldsOf(await owner.post('/labels/preview', { ...order, size: 'a3' }))[0]).toContain('size: ');
  });

  test('nothing runs over an edge or into the code, on any size, however long the genes', () => {
    const genes =
      'Super Pastel Orange Dream Enchi Leopard Yellow Belly 100% Het Clown 66% Het Desert Ghost (Fire) (Spotnose)';
    for (const size of LABEL_SIZES) {
      const stock = LABEL_STOCK[size];
      for (const kind of ['numbers', 'full'] as const) {
        const label = drawLabel(
          {
            animalId: 'x',
            number: '2604-02',
            kind,
            sex: 'female',
            genes,
            hatchedOn: '2026-08-02',
            parents: 'M-04 or M-11 × F-12',
            url: 'http://127.0.0.1:4180/animals/00000000-0000-0000-0000-000000000000?label=12',
          },
          stock,
        );
        for (const { text, x, y, sizeMm, isBold } of label.texts) {
          expect(
            x + widthOf(text, sizeMm, isBold ? 'bold' : 'regular'),
            `${size}: ${text}`,
          ).toBeLessThanOrEqual(label.qr!.x);
          expect(y - sizeMm * 0.7, `${size}: ${text}`).toBeGreaterThan(0.5);
          expect(y + sizeMm * 0.25, `${size}: ${text}`).toBeLessThan(stock.heightMm);
        }
        const lines = label.texts.map(({ y }) => y).toSorted((a, b) => a - b);
        lines.slice(1).forEach((y, i) => expect(y - lines[i]!, `${size} ${kind}`).toBeGreaterThan(1.4));
      }
    }
  });
});
