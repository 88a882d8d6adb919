import type { FieldProblem } from '@karyotome/contract';
import { isIsoDay, momentsOf, offsetAt, type TimeZone } from '@karyotome/core';
import Papa from 'papaparse';
import { invalidField, Refusal } from '../../refusal.ts';
import type { Progress } from '../../threads/pool.ts';
import { decodeCsv } from '../../http/csv-body.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'read-logger': typeof readLogger;
  }
}

/** What the columns of a logger's file may be called, folded to small letters without units. */
const TIME = ['time', 'timestamp', 'datetime', 'date time', 'date/time', 'date & time'];
const DATE = ['date'];
const TEMPERATURE = ['temperature', 'temp', 'celsius', 'fahrenheit', 't'];
const HUMIDITY = ['humidity', 'relative humidity', 'rh', 'hum'];

const MAX_ROWS = 100_000;
const MAX_COLUMNS = 40;
/** Longer than any heading, time or number is. */
const MAX_CELL = 80;
const PROBLEMS_SHOWN = 20;

interface Columns {
  time: string;
  date: string | null;
  temperature: string;
  isFahrenheit: boolean;
  humidity: string | null;
}

export interface LoggerFile {
  readonly bytes: Uint8Array;
  /** What the logger's clock showed, where the file gives no offsets. */
  readonly timeZone: TimeZone;
  /** Milliseconds; readings lie an hour after it at the latest. */
  readonly now: number;
}

/** Readings in few flat arrays: cheap to hand from one thread to another. */
export interface LoggerReadings {
  /** Milliseconds since 1970. */
  readonly at: Float64Array;
  readonly celsius: Float64Array;
  /** NaN where there is none. */
  readonly humidity: Float64Array;
}

/**
 * Reads a logger's CSV file. Times without an offset are read in the zone that is given; days written with slashes are read
 * only where the file tells which number is the month. Run in a thread.
 *
 * @throws Refusal naming the lines at fault; nothing is guessed
 */
export function readLogger({ bytes, timeZone, now }: LoggerFile, progress: Progress): LoggerReadings {
  const { data, meta } = Papa.parse<Record<string, string>>(decodeCsv(bytes).trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    preview: MAX_ROWS + 1,
    transformHeader: (header) => header.slice(0, MAX_CELL).trim(),
    transform: (cell) => cell.slice(0, MAX_CELL),
  });
  if (data.length === 0) throw invalidField('file', 'holds no readings', 'empty');
  if (data.length > MAX_ROWS) throw invalidField('file', `holds more than ${MAX_ROWS} readings`, 'too-many');
  const fields = meta.fields ?? [];
  if (fields.length > MAX_COLUMNS)
    throw invalidField('file', `has ${fields.length} columns: at most ${MAX_COLUMNS}`, 'too-many-columns');
  const columns = findColumns(fields);
  const texts = data.map((row) =>
    `${columns.date ? `${row[columns.date] ?? ''} ` : ''}${row[columns.time] ?? ''}`.trim(),
  );
  const order = slashOrder(texts);
  const moments = placeInTime(
    texts.map((text) => readMoment(text, order)),
    timeZone,
  );
  const problems: FieldProblem[] = [];
  const add = (line: number, code: string, message: string): void =>
    void problems.push({ field: `line ${line}`, code, message });
  const at = new Float64Array(data.length);
  const celsius = new Float64Array(data.length);
  const humidity = new Float64Array(data.length);
  data.forEach((row, i) => {
    progress(i, data.length);
    const line = i + 2;
    const moment = moments[i] ?? null;
    if (moment === null)
      add(
        line,
        'moment',
        `has a time that cannot be read, "${texts[i]!.slice(0, 40)}": write it like 2026-05-14 21:30`,
      );
    else if (moment < EARLIEST) add(line, 'moment', "lies before the year 2000: is the logger's clock set?");
    else if (moment > now + HOUR_MS)
      add(line, 'future', `lies in the future, by the clocks of ${timeZone}: is that the logger's zone?`);
    const degrees = numberOf(row[columns.temperature]);
    const inC = columns.isFahrenheit && degrees !== null ? ((degrees - 32) * 5) / 9 : degrees;
    if (inC === null || inC < -10 || inC > 60)
      add(line, 'temperature', 'has no temperature between -10 and 60 °C');
    const damp = columns.humidity ? numberOf(row[columns.humidity]) : null;
    if (damp !== null && (damp < 0 || damp > 100)) add(line, 'humidity', 'has a humidity beyond 0 to 100%');
    at[i] = moment ?? NaN;
    celsius[i] = Math.round((inC ?? NaN) * 1000) / 1000;
    humidity[i] = damp ?? NaN;
  });
  if (problems.length > 0)
    throw new Refusal(
      'invalid',
      `Nothing was taken over: ${problems.length} faults in the file.`,
      problems.slice(0, PROBLEMS_SHOWN),
    );
  return { at, celsius, humidity };
}

const HOUR_MS = 3_600_000;
const EARLIEST = Date.UTC(2000, 0, 1);

function findColumns(headers: readonly string[]): Columns {
  const folded = headers.map((header) => ({
    header,
    name: withoutUnit(header.toLowerCase()),
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

/** "temperature (°c)", "temp_°f" and "humidity %" by their names alone. A heading is cut to a few words before it comes here. */
function withoutUnit(header: string): string {
  const [name = ''] = header.split(/[([]/);
  return name
    .replaceAll('_', ' ')
    .split(' ')
    .filter((word) => word !== '' && !UNIT_WORDS.has(word))
    .join(' ');
}
const UNIT_WORDS = new Set(['°', '°c', '°f', '%', '%rh', 'deg', 'degrees', 'c', 'f']);

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

/** What a line says of its time: a moment where it gives its offset, else what a clock showed. */
interface Written {
  /** Milliseconds; of a clock that shows UTC where `isLocal`. */
  readonly ms: number;
  readonly isLocal: boolean;
}

function readMoment(text: string, order: Order): Written | null {
  const [, h = '0', m = '00', s = '00', half] =
    /[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d{1,9})?)? ?(AM|PM)?/i.exec(text) ?? [];
  const offset = /(Z|[+-]\d{2}:\d{2})$/.exec(text)?.[1];
  const date = readDate(text, order);
  // A day that no calendar has would be taken for one of the next month.
  if (!date || !isIsoDay(date)) return null;
  const hour = half ? (Number(h) % 12) + (half.toUpperCase() === 'PM' ? 12 : 0) : Number(h);
  const ms = Date.parse(`${date}T${String(hour).padStart(2, '0')}:${m}:${s}${offset ?? 'Z'}`);
  return Number.isNaN(ms) ? null : { ms, isLocal: offset === undefined };
}

/**
 * The moments of a file's lines. In the hour that comes twice when clocks go back, the lines' own order tells which one is
 * meant: it goes on from the line before. A time in the hour that is left out is read by the clock that was not set forward.
 */
function placeInTime(written: readonly (Written | null)[], zone: TimeZone): (number | null)[] {
  const isNewestFirst = runsBackwards(written);
  const lines = isNewestFirst ? written.toReversed() : written;
  let before = -Infinity;
  const placed = lines.map((line) => {
    if (line === null) return null;
    if (!line.isLocal) return (before = line.ms);
    const choices = momentsOf(zone, line.ms);
    const [first = line.ms - offsetAt(zone, line.ms - DAY_MS)] = choices;
    return (before = choices.find((moment) => moment > before) ?? first);
  });
  return isNewestFirst ? placed.toReversed() : placed;
}
const DAY_MS = 86_400_000;

function runsBackwards(written: readonly (Written | null)[]): boolean {
  const known = written.filter((line) => line !== null);
  return known.length > 1 && known.at(-1)!.ms < known[0]!.ms;
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
