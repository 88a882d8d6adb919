import { ESLint } from 'eslint';
import ts from 'typescript-eslint';
import { describe, expect, test } from 'vitest';

/* The boundaries between the workspaces are rules of the linter; here violations are planted to see that they bite. */
const eslint = new ESLint({
  cwd: new URL('..', import.meta.url).pathname,
  // A planted file is in no project, so it has no types.
  overrideConfig: [ts.configs.disableTypeChecked],
});
const rulesBroken = async (filePath: string, code: string): Promise<(string | null)[]> => {
  const [result] = await eslint.lintText(code, { filePath });
  return result!.messages.map((message) => message.ruleId);
};

describe('core', () => {
  test.each([
    ['Node', "import fs from 'fs';\nexport const a = fs;"],
    ['Node by prefix', "import fs from 'node:fs';\nexport const a = fs;"],
    ['another workspace', "import { validate } from '@karyotome/contract';\nexport const a = validate;"],
    ['another workspace by path', "import { a } from '../../server/src/app.ts';\nexport const b = a;"],
    ['a framework', "import { ref } from 'vue';\nexport const a = ref;"],
  ])('imports nothing of %s', async (_, code) => {
    expect(await rulesBroken('core/src/planted.ts', code)).toEqual(['no-restricted-imports']);
  });

  test.each([
    ['the page', 'export const a = document.title;', 'no-restricted-globals'],
    ['the network', "export const a = fetch('/');", 'no-restricted-globals'],
    ['the process', 'export const a = process.pid;', 'no-restricted-globals'],
    ['the clock', 'export const a = new Date();', 'no-restricted-syntax'],
    ['dice', 'export const a = Math.random();', 'no-restricted-syntax'],
  ])('does not know %s', async (_, code, rule) => {
    expect(await rulesBroken('core/src/planted.ts', code)).toEqual([rule]);
  });
});

test('the web does not reach the server but through its client', async () => {
  expect(
    await rulesBroken(
      'web/src/ui/planted.ts',
      "import { a } from '../../../server/src/app.ts';\nexport const b = a;",
    ),
  ).toEqual(['no-restricted-imports']);
  expect(await rulesBroken('web/src/ui/planted.ts', "export const a = fetch('/');")).toEqual([
    'no-restricted-globals',
  ]);
});

test('services know no HTTP, and only the configuration reads the environment', async () => {
  expect(
    await rulesBroken(
      'server/src/features/x/x.service.ts',
      "import express from 'express';\nexport const a = express;",
    ),
  ).toEqual(['no-restricted-imports']);
  expect(await rulesBroken('server/src/features/x/x.ts', "export const a = process.env['PORT'];")).toEqual([
    'no-restricted-syntax',
  ]);
});
