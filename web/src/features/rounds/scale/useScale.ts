import { parseScaleLine, SteadyMass } from '@karyotome/core';
import { onScopeDispose, ref } from 'vue';
import type { ScaleSource } from './sources.ts';

/** A scale that is read as long as something is weighed: what it shows, and the mass once it is steady. */
export function useScale(onSteady: (massG: number) => void) {
  const shown = ref<number | null>(null);
  const name = ref<string | null>(null);
  const problem = ref<string | null>(null);
  let close: (() => Promise<void>) | null = null;

  async function connect(source: ScaleSource): Promise<void> {
    await disconnect();
    problem.value = null;
    const steady = new SteadyMass();
    try {
      close = await source.open(
        (line) => {
          const reading = parseScaleLine(line);
          if (!reading) return;
          shown.value = reading.massG;
          const found = steady.push(performance.now(), reading.massG);
          if (found !== null) onSteady(found);
        },
        (reason) => {
          problem.value = reason;
          void disconnect();
        },
      );
      name.value = source.name;
    } catch (error) {
      // Nobody chose a port, or it is held by another program: weighing goes on by keypad.
      problem.value = error instanceof Error ? error.message : 'The scale cannot be read.';
    }
  }
  async function disconnect(): Promise<void> {
    const ending = close;
    close = null;
    name.value = null;
    shown.value = null;
    await ending?.();
  }
  onScopeDispose(() => void disconnect());
  return { shown, name, problem, connect, disconnect };
}
