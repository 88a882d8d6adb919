import fc from 'fast-check';
import { expect, test } from 'vitest';
import { createBag, digestMultibase, verifyFile } from '../src/index.ts';
import { chained, statementOf, toBytes } from './documents.ts';

/* A signed document, or a package, changed anywhere in any way: it is found. */

async function isFound(bytes: Uint8Array): Promise<boolean> {
  try {
    return !(await verifyFile(bytes)).valid;
  } catch (error) {
    return (error as Error).name === 'InputError';
  }
}

/** Every place in a document where a value stands. */
function places(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [path];
  const entries = Object.entries(value);
  return [path, ...entries.flatMap(([name, inner]) => places(inner, [...path, name]))].filter(
    (one) => one.length > 0,
  );
}

function put(document: unknown, path: readonly string[], value: unknown): unknown {
  const copy = structuredClone(document);
  let holder = copy as Record<string, unknown>;
  for (const part of path.slice(0, -1)) holder = holder[part] as Record<string, unknown>;
  holder[path.at(-1)!] = value;
  return copy;
}

test('seven hundred documents with another value somewhere are found', async () => {
  const document = statementOf({ claims: [], cautions: ['Wobble may be inherited.'] });
  const where = places(document);
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...where), fc.jsonValue(), async (path, value) => {
      const changed = put(document, path, value);
      fc.pre(JSON.stringify(changed) !== JSON.stringify(document));
      // Minus nought is nought in JSON.
      fc.pre(JSON.stringify(JSON.parse(JSON.stringify(changed))) !== JSON.stringify(document));
      expect(await isFound(toBytes(changed))).toBe(true);
    }),
    {
      numRuns: 700,
      // An allele that cannot be written as text: it broke the reader's message about it.
      examples: [
        [
          ['credentialSubject', 'pedigree', 'animals', '0', 'calls', '0', 'is', '0', '0'],
          [{ toString: false }],
        ],
      ],
    },
  );
}, 120_000);

test('three hundred packages with another bit somewhere in their files are found', async () => {
  const picture = toBytes('a picture');
  const pictures = [
    { file: 'pictures/a.jpg', mediaType: 'image/jpeg', digestMultibase: digestMultibase(picture) },
  ];
  const early = { validFrom: '2026-10-01T09:00:00Z' };
  const files = new Map([
    ['lineage.json', toBytes(statementOf({ pictures, statement: 2, previous: chained(1).id }))],
    ['earlier/1.json', toBytes(chained(1, early))],
    ['pictures/a.jpg', picture],
    ['records.json', toBytes({ records: [] })],
  ]);
  const bytes = await createBag('bag', files, new Date('2026-11-28T10:00:00Z'));
  expect(await isFound(bytes)).toBe(false);
  // Their manifests are made again: neither signature nor digest agrees all the same. Records carry no signature of their own.
  const signed = [...files.keys()].filter((file) => file !== 'records.json');
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...signed),
      fc.nat(),
      fc.integer({ min: 1, max: 255 }),
      async (file, at, mask) => {
        const changed = Uint8Array.from(files.get(file)!);
        changed[at % changed.length]! ^= mask;
        const bag = await createBag('bag', new Map([...files, [file, changed]]), new Date(0));
        expect(await isFound(bag)).toBe(true);
      },
    ),
    { numRuns: 300 },
  );
}, 120_000);
