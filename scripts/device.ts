import { parseArgs } from 'node:util';
import { setTimeout as sleep } from 'node:timers/promises';
import { dayIn, simulatedReading, steadyClimate } from '@karyotome/core';

/*
 * npm run device: a sensor and a scale that are simulated, to try out what a real one does. Each signs in with a token, as any
 * program does, and knows nothing but the API.
 *
 *   KARYOTOME_TOKEN=… npm run device -- sensor --incubator "Incubator 1" [--every SECONDS] [--failing]
 *   KARYOTOME_TOKEN=… npm run device -- sensor --room "Snake room" [--every SECONDS]
 *   KARYOTOME_TOKEN=… npm run device -- scale --animal 2601-04 --grams 342
 */

const ADDRESS = 'http://127.0.0.1:4180';
const USAGE = `KARYOTOME_TOKEN must hold a token (Settings, Your account), and KARYOTOME_ADDRESS the server's address
where it is not ${ADDRESS}.
  sensor --incubator NAME [--every SECONDS] [--failing]   sends a reading, over and over with --every
  sensor --room NAME [--every SECONDS]                    the same of a room
  scale --animal NUMBER --grams GRAMS                     records a weight of today`;

/** Something that was asked for wrongly, or that the server refuses. */
class DeviceError extends Error {}

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    incubator: { type: 'string' },
    room: { type: 'string' },
    every: { type: 'string' },
    failing: { type: 'boolean' },
    animal: { type: 'string' },
    grams: { type: 'string' },
  },
});

interface Page<Item> {
  readonly items: readonly Item[];
}

async function ask<Answer>(method: 'GET' | 'POST', path: string, body?: object): Promise<Answer> {
  const token = process.env['KARYOTOME_TOKEN'];
  if (!token) throw new DeviceError(USAGE);
  const answer = await fetch(`${process.env['KARYOTOME_ADDRESS'] ?? ADDRESS}/api/v1${path}`, {
    method,
    headers: { Authorization: `Bearer ${token}`, ...(body ? { 'Content-Type': 'application/json' } : {}) },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  const told = (await answer.json()) as Answer & { detail?: string; title?: string };
  if (!answer.ok) throw new DeviceError(`${answer.status}: ${told.detail ?? told.title}`);
  return told;
}

/** An incubator, or a room, which is not set to anything. */
interface Place {
  readonly id: string;
  readonly name: string;
  readonly setC?: number;
  readonly lowC: number;
  readonly highC: number;
}

async function sensor(): Promise<void> {
  const { incubator, room, every, failing } = values;
  const name = incubator ?? room;
  if (!name || (incubator && room)) throw new DeviceError(USAGE);
  const seconds = every === undefined ? null : Number(every);
  if (seconds !== null && !(seconds >= 1))
    throw new DeviceError('--every must be a number of seconds from 1');
  const [path, kind] = incubator ? ['/incubators', 'incubator'] : ['/rooms', 'room'];
  const { items } = await ask<Page<Place>>('GET', `${path}?limit=200`);
  const place = items.find((one) => one.name === name);
  if (!place)
    throw new DeviceError(
      `No ${kind} is called ${name}: there are ${items.map((one) => one.name).join(', ')}`,
    );
  const around = steadyClimate(place);
  const since = Date.now();
  for (;;) {
    const now = Date.now();
    const { celsius, humidity } = simulatedReading(now, around, failing ? 'heater-fails' : 'steady', since);
    const at = new Date(now).toISOString();
    await ask('POST', `${path}/${place.id}/readings`, { at, celsius, humidity });
    console.log(`${at} ${celsius} °C, ${humidity}%`);
    if (seconds === null) return;
    await sleep(seconds * 1000);
  }
}

async function scale(): Promise<void> {
  const { animal: number, grams } = values;
  if (!number || !grams) throw new DeviceError(USAGE);
  const found = await ask<Page<{ id: string; number: string }>>(
    'GET',
    `/animals?limit=200&search=${encodeURIComponent(number)}`,
  );
  const animal = found.items.find((one) => one.number === number);
  if (!animal) throw new DeviceError(`No animal has the number ${number}`);
  const { collection } = await ask<{ collection: { farmZone: string } }>('GET', '/session');
  // The farm's day, whatever zone the device stands in.
  const on = dayIn(collection.farmZone, Date.now());
  await ask('POST', `/animals/${animal.id}/records`, { kind: 'weight', on, body: { massG: Number(grams) } });
  console.log(`${number}: ${grams} g on ${on}`);
}

const DEVICES: Readonly<Record<string, () => Promise<void>>> = { sensor, scale };

try {
  const device = DEVICES[positionals[0] ?? ''];
  if (!device) throw new DeviceError(USAGE);
  await device();
} catch (error) {
  if (!(error instanceof DeviceError)) throw error;
  console.error(error.message);
  process.exitCode = 2;
}
