import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readConfig } from '../src/config.ts';
import { warnOfUnnamedProxy } from '../src/http/unnamed-proxy.ts';

/* A proxy that is set wrongly is refused at the start, not guessed. */

let dataDir: string;
beforeAll(() => {
  dataDir = mkdtempSync(join(tmpdir(), 'karyotome-config-'));
});
afterAll(() => rmSync(dataDir, { recursive: true, force: true }));
const read = (more: Record<string, string>): readonly string[] =>
  readConfig({ DATABASE_URL: 'x', KARYOTOME_DATA: dataDir, ...more }).trustedProxies;

describe('TRUSTED_PROXIES', () => {
  test('takes addresses, networks and loopback', () => {
    expect(read({ TRUSTED_PROXIES: 'loopback, 10.1.0.0/16, fd00::1' })).toEqual([
      'loopback',
      '10.1.0.0/16',
      'fd00::1',
    ]);
    expect(read({})).toEqual([]);
  });

  test.each(['true', '1', 'proxy.example', '10.0.0.0/99', '0.0.0.0/0', '::/0'])(
    'refuses %s, naming it',
    (name) => {
      expect(() => read({ TRUSTED_PROXIES: `loopback,${name}` })).toThrow(`TRUSTED_PROXIES`);
      expect(() => read({ TRUSTED_PROXIES: `loopback,${name}` })).toThrow(`"${name}"`);
    },
  );

  test('is needed where a proxy ends TLS', () => {
    expect(() => read({ BEHIND_TLS: '1' })).toThrow('BEHIND_TLS=1 needs TRUSTED_PROXIES');
    expect(read({ BEHIND_TLS: '1', TRUSTED_PROXIES: 'loopback' })).toEqual(['loopback']);
  });
});

test('a proxy that passes requests on without being named is told of once', async () => {
  const lines: string[] = [];
  const logger = pino({}, { write: (line: string) => void lines.push(line) });
  const ask = async (trusted: string[]): Promise<void> => {
    const app = express().set('trust proxy', trusted).use(warnOfUnnamedProxy(logger));
    for (let i = 0; i < 3; i++) await request(app).get('/').set('X-Forwarded-For', '198.51.100.7');
  };
  await ask(['loopback']);
  expect(lines).toEqual([]);
  await ask([]);
  expect(lines).toHaveLength(1);
  expect(lines[0]).toContain('TRUSTED_PROXIES');
});
