import { ago } from './days.ts';
import { createdBy, startTestApp, type TestApp } from './test-app.ts';

/** An id that nothing has. */
export const NOBODY = '0e2c7c52-3f0a-4a53-9a57-5ec9a33d4a10';
export const INCUBATOR = {
  name: 'Box',
  setC: 31.4,
  lowC: 30.4,
  highC: 32.2,
  lowHumidity: null,
  silentAfterHours: null,
  sensor: 'none',
};

/** A pair, its first introduction, and its clutch of three in an incubator. */
export async function startWithClutch(): Promise<
  { app: TestApp } & Record<'dam' | 'sire' | 'pairing' | 'event' | 'clutch' | 'incubator', string>
> {
  const app = await startTestApp();
  const created = createdBy(() => app.owner);
  const parent = async (number: string, sex: string) =>
    (await created('/animals', { number, sex, genes: 'Normal', hatchedOn: ago(2000), massG: 1900 })).id;
  const dam = await parent('D', 'female');
  const sire = await parent('S', 'male');
  const together = { damId: dam, sireId: sire, on: ago(90) };
  const { pairingId: pairing, eventId: event } = await created<{ pairingId: string; eventId: string }>(
    '/season/introductions',
    together,
  );
  const incubator = (await created('/incubators', INCUBATOR)).id;
  const laid = { pairingId: pairing, laidOn: ago(30), eggs: 3, incubatorId: incubator };
  const clutch = (await created('/clutches', laid)).id;
  return { app, dam, sire, pairing, event, clutch, incubator };
}
