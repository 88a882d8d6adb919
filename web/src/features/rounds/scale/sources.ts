/** Where the lines of a scale come from. */
export interface ScaleSource {
  readonly name: string;
  /** Begins to read. @returns ends it */
  open(onLine: (line: string) => void, onEnd: (reason: string) => void): Promise<() => Promise<void>>;
}

/** What the browser's serial interface has of what is used here (Web Serial, WICG). */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}
interface Serial {
  requestPort(): Promise<SerialPort>;
  getPorts(): Promise<SerialPort[]>;
}
const serialOf = (): Serial | undefined => (navigator as Navigator & { serial?: Serial }).serial;
export const hasSerial = (): boolean => serialOf() !== undefined;

/** Scales speak at this rate unless they were set otherwise. */
export const BAUD_RATES = [9600, 4800, 2400, 19200, 38400, 115200] as const;

/** A scale at the serial interface, asked for once and then known. */
export function serialScale(baudRate: number): ScaleSource {
  return {
    name: 'Scale',
    async open(onLine, onEnd) {
      const serial = serialOf();
      if (!serial) throw new Error('This browser has no serial interface.');
      const port = (await serial.getPorts())[0] ?? (await serial.requestPort());
      await port.open({ baudRate });
      const reader = port.readable!.getReader();
      void readLines(reader, onLine).then(
        () => onEnd('The scale was unplugged.'),
        () => onEnd('The scale cannot be read any more.'),
      );
      return async () => {
        await reader.cancel();
        reader.releaseLock();
        await port.close();
      };
    },
  };
}

async function readLines(
  reader: ReadableStreamDefaultReader<Uint8Array>,
  onLine: (line: string) => void,
): Promise<void> {
  const decoder = new TextDecoder();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    const parts = (rest + decoder.decode(value, { stream: true })).split(/\r\n|\r|\n/);
    rest = parts.pop()!;
    parts.filter((line) => line.trim() !== '').forEach(onLine);
  }
}

const EVERY_MS = 200;
/** Readings until the animal lies still. */
const RESTLESS = 8;

/**
 * A scale that only pretends: an animal of the given mass is laid on it, moves, and lies still. To try weighing without a
 * scale.
 *
 * @param massG - what would lie on it, grams
 */
export function simulatedScale(massG: () => number, random: () => number = Math.random): ScaleSource {
  return {
    name: 'Simulated scale',
    open(onLine) {
      let turn = 0;
      const timer = setInterval(() => {
        turn += 1;
        const restless = turn <= RESTLESS ? 0.06 * (1 - turn / RESTLESS) : 0.0006;
        const shown = turn < 3 ? 0 : massG() * (1 + restless * (2 * random() - 1));
        onLine(
          `${turn > RESTLESS ? 'ST' : 'US'},GS,${shown >= 0 ? '+' : ''}${shown.toFixed(1).padStart(8)} g`,
        );
      }, EVERY_MS);
      return Promise.resolve(() => {
        clearInterval(timer);
        return Promise.resolve();
      });
    },
  };
}
