import { expect, test } from 'vitest';
import { createBag } from '@karyotome/lineage';
import { altered, statementOf, toBytes } from '../../lineage/test/documents.ts';
import { UsageError } from './arguments.ts';
import { runCommand } from './commands.ts';

const verify = (bytes: Uint8Array, ...more: string[]) => runCommand(['verify', 'file', ...more], () => bytes);

test('a document whose claims follow exits with 0', async () => {
  const { output, code } = await verify(toBytes(statementOf()), '--json');
  expect(code).toBe(0);
  expect(JSON.parse(output)).toMatchObject({
    format: 'karyotome-verification/1',
    valid: true,
    signature: 'valid',
    claims: [{ locus: 'clown', words: '66% het Clown', follows: true }],
  });
  const table = await verify(toBytes(statementOf()));
  expect(table.output).toContain('2602-02, statement 1 as of 28 Nov 2026: valid');
  expect(table.output).toContain('66.67%  66% het Clown: follows');
  expect(table.output).toContain('not that the animals were looked at rightly');
});

test('a document that was changed exits with 1, and says what is wrong', async () => {
  const changed = toBytes(altered(statementOf(), 'credentialSubject.claims.0.p', 1));
  const { output, code } = await verify(changed, '--json');
  expect(code).toBe(1);
  expect((JSON.parse(output) as { problems: unknown[] }).problems).toContainEqual({
    code: 'signature-invalid',
    facts: {},
  });
  const table = await verify(changed);
  expect(table.output).toContain('NOT VALID');
  expect(table.output).toContain(
    '"66% het Clown" is claimed with 100%; the pedigree in the document gives 66.6667%.',
  );
});

test('a package with several animals is told one after the other', async () => {
  const other = toBytes(statementOf({ number: '2602-03' }));
  const files = new Map([
    ['a/lineage.json', toBytes(statementOf())],
    ['b/lineage.json', other],
  ]);
  const { output, code } = await verify(await createBag('two', files, new Date(0)));
  expect(code).toBe(0);
  expect(output).toMatch(/2602-02, statement 1[^]*\n\n2602-03, statement 1/);
});

test('what is neither is refused in one line', async () => {
  const refused = verify(toBytes({}));
  await expect(refused).rejects.toThrow(UsageError);
  await expect(refused).rejects.toThrow(/^credentialSubject\.format: must be "karyotome-lineage\/1"$/);
  await expect(runCommand(['verify'], () => new Uint8Array())).rejects.toThrow('file: give one file');
});
