import { expect, test } from 'vitest';
import { scannedCode } from './scanned-code.ts';

const HERE = 'https://farm.example';

test('a code leads to a key, a statement here or elsewhere, or a hand-over', () => {
  // The key of the cryptosuite's published test vector (Data Integrity EdDSA Cryptosuites 1.0).
  const did = 'did:key:z6MkrJVnaZkeFzdQyMZu1cgjg7k1pZZ6pvBQ7XJPt4swbTQ2';
  expect(scannedCode(did, HERE)).toEqual({ is: 'key', did });
  expect(scannedCode(`${HERE}/p/a-b_1/statements/2`, HERE)).toMatchObject({
    is: 'statement',
    slug: 'a-b_1',
    statement: 2,
    isHere: true,
  });
  expect(scannedCode('https://other.example/p/a/statements/2', HERE)).toMatchObject({ isHere: false });
  expect(scannedCode('https://other.example/h/abc', HERE)).toMatchObject({ is: 'hand-over' });
});

test.each([
  'did:key:z0',
  'F-01',
  'javascript:alert(1)//p/a/statements/2',
  'https://farm.example/p/a/statements/2/x',
  'https://farm.example/p/../statements/2',
  'https://farm.example/animals/1',
  '',
])('%j leads nowhere', (text) => {
  expect(scannedCode(text, HERE)).toBeNull();
});
