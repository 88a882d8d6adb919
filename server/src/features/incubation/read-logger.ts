import type { FieldProblem, NewReading } from '@karyotome/contract';
import { isIsoDay } from '@karyotome/core';
import Papa from 'papaparse';
import { invalidField, Refusal } from '../../http/problems.ts';

/** What the columns of a logger's file may be called, folded to small letters without units. */
const TIME = ['time', 'timestamp', 'datetime', 'date time', 'date/time', 'date & time'];
const DATE = ['date'];
const TEMPERATURE = ['temperature', 'temp', 'celsius', 'fahrenheit', 't'];
const HUMIDITY = ['humidity', 'relative humidity', 'rh', 'hum'];

const MAX_ROWS = 100_000;
const PROBLEMS_SHOWN = 20;

interface Columns {
  time: string;
  date: string | null;
  temperature: string;
  isFahrenheit: boolean;
  humidity: string | null;
}

/**
 * Reads a logger's CSV file. Times without an offset are the server's own; days written with slashes are read only where the
 * file tells which number is the month.
 *
 * @throws Refusal naming the lines at fault; nothing is guessed
 */
export function readLogger(text: string): NewReading[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim(),
  });
  if (data.length === 0) throw invalidField('file', 'holds no readings', 'empty');
  if (data.length > MAX_ROWS) throw invalidField('file', `holds more than ${MAX_ROWS} readings`, 'too-many');
  const columns = findColumns(meta.fields ?? []);
  const moments = data.map((row) =>
    `${columns.date ? `${row[columns.date]} ` : ''}${row[columns.time] ?? ''}`.trim(),
  );
  const order = slashOrder(moments);
  const problems: FieldProblem[] = [];
  const readings = data.flatMap((row, i): NewReading[] => {
    const line = i + 2;
    const at = readMoment(moments[i]!, order);
    const degrees = numberOf(row[columns.temperature]);
    const humidity = columns.humidity ? numberOf(row[columns.humidity]) : null;
    if (at === null)
      problems.push({
        field: `line ${line}`,
        code: 'moment',
        message: `has a time that cannot be read, "${moments[i]!.slice(0, 40)}": write it like 2026-05-14 21:30`,
      });
    const celsius = columns.isFahrenheit && degrees !== null ? ((degrees - 32) * 5) / 9 : degrees;
    if (celsius === null || celsius < -10 || celsius > 60)
      problems.push({
        field: `line ${line}`,
        code: 'temperature',
        message: 'has no temperature between -10 and 60 °C',
      });
    if (humidity !== null && (humidity < 0 || humidity > 100))
      problems.push({ field: `line ${line}`, code: 'humidity', message: 'has a humidity beyond 0 to 100%' });
    if (at === null || celsius === null) return [];
    return [{ at, celsius: Math.round(celsius * 1000) / 1000, humidity }];
  });
  if (problems.length > 0)
    throw new Refusal(
      'invalid',
      `Nothing was taken over: ${problems.length} faults in the file.`,
      problems.slice(0, PROBLEMS_SHOWN),
    );
  return readings;
}

function findColumns(headers: readonly string[]): Columns {
  const folded = headers.map((header) => ({
    header,
    name: header
      .toLowerCase()
      .replace(/[([].*?[)\]]/g, '')
      .replace(/[°%]\s*[cf]?|\b(deg|degrees)\b/g, '')
      .replace(/_/g, ' ')
      .trim(),
  }));
  const find = (names: readonly string[]) => folded.find(({ name }) => names.includes(name))?.header ?? null;
  const temperature = find(TEMPERATURE);
  const date = find(DATE);
  const time = find(TIME) ?? date;
  if (!time) throw invalidField('file', 'has no column for the time: call it "time"', 'columns');
  if (!temperature)
    throw invalidField('file', 'has no column for the temperature: call it "temperature"', 'columns');
  return {
    time,
    date: date === time ? null : date,
    temperature,
    isFahrenheit: /°\s*f|\bf\b|fahrenheit/i.test(temperature),
    humidity: find(HUMIDITY),
  };
}

function numberOf(text: string | undefined): number | null {
  const match = /^[-+]?\d+(?:[.,]\d+)?/.exec((text ?? '').trim());
  return match ? Number(match[0].replace(',', '.')) : null;
}

const SLASHED = /^(\d{1,2})\/(\d{1,2})\/(\d{4})/;
type Order = 'day-first' | 'month-first' | null;

/** Which number is the month, where a day beyond the twelfth tells. */
function slashOrder(moments: readonly string[]): Order {
  for (const moment of moments) {
    const match = SLASHED.exec(moment);
    if (match && Number(match[1]) > 12) return 'day-first';
    if (match && Number(match[2]) > 12) return 'month-first';
  }
  return null;
}

function readMoment(text: string, order: Order): string | null {
  const [, h = '0', m = '00', s = '00', half] =
    /[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*(AM|PM)?/i.exec(text) ?? [];
  const offset = /(Z|[+-]\d{2}:\d{2})$/.exec(text)?.[1];
  const date = readDate(text, order);
  // A day that no calendar has would be taken for one of the next month.
  if (!date || !isIsoDay(date)) return null;
  const hour = half ? (Number(h) % 12) + (half.toUpperCase() === 'PM' ? 12 : 0) : Number(h);
  const local = `${date}T${String(hour).padStart(2, '0')}:${m}:${s}`;
  const ms = offset ? Date.parse(local + offset) : new Date(local).getTime();
  return Number.isNaN(ms) ? null : new Date(ms).toISOString();
}

function readDate(text: string, order: Order): string | null {
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})/.exec(text);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})/.exec(text);
  const slashed = SLASHED.exec(text);
  const join = (year: string, month: string, day: string): string =>
    `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  if (iso) return join(iso[1]!, iso[2]!, iso[3]!);
  if (dotted) return join(dotted[3]!, dotted[2]!, dotted[1]!);
  if (!slashed || order === null) return null;
  return order === 'day-first'
    ? join(slashed[3]!, slashed[2]!, slashed[1]!)
    : join(slashed[3]!, slashed[1]!, slashed[2]!);
}
