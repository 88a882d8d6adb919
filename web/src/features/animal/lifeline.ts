import type { AnimalView, RecordView } from '@karyotome/contract';

/** What a lifeline draws, read from an animal's records; days as ISO text, masses in grams. */
export interface LifelineData {
  readonly weights: readonly { id: string; on: string; massG: number }[];
  readonly meals: readonly { id: string; on: string; taken: boolean; prey: string }[];
  readonly sheds: readonly { id: string; from: string; to: string; isWhole: boolean }[];
  readonly stays: readonly {
    id: string;
    from: string;
    to: string;
    place: string;
    minG: number | null;
    maxG: number | null;
  }[];
  /** What a weight was expected to be, given all before it. */
  readonly band: readonly { on: string; lowG: number; highG: number }[];
  readonly marks: readonly { id: string; on: string; text: string }[];
}

/** Turns the records into the lifeline's marks. A shed reaches from its first sign to the shed itself. */
export function toLifeline(animal: AnimalView, today: string): LifelineData {
  const records = animal.records.filter((record) => record.voided === null).toReversed();
  const of = <K extends RecordView['kind']>(kind: K) =>
    records.filter((record) => record.kind === kind) as Extract<RecordView, { kind: K }>[];
  const moves = of('move');
  const step = animal.currentStep === null ? null : (animal.steps[animal.currentStep] ?? null);
  return {
    weights: of('weight').map(({ id, on, body }) => ({ id, on, massG: body.massG })),
    meals: of('feeding').map(({ id, on, body }) => ({
      id,
      on,
      taken: body.taken,
      prey: `${body.species} ${body.size}`,
    })),
    sheds: toSheds(of('shed')),
    stays: moves
      .map((move, i) => ({
        id: move.id,
        from: move.on,
        to: moves[i + 1]?.on ?? today,
        place: move.body.to ?? 'no tub',
        minG: i === moves.length - 1 ? (step?.minG ?? null) : null,
        maxG: i === moves.length - 1 ? (step?.maxG ?? null) : null,
      }))
      .filter((stay) => stay.place !== 'no tub'),
    band: animal.care.growth?.band ?? [],
    marks: [
      ...(animal.hatchedOn ? [{ id: '', on: animal.hatchedOn, text: 'hatched' }] : []),
      ...of('identification').map(({ id, on, body }) => ({ id, on, text: `identified: ${body.genes}` })),
      ...of('sex').map(({ id, on, body }) => ({ id, on, text: `sexed: ${body.sex}` })),
    ],
  };
}

function toSheds(records: readonly Extract<RecordView, { kind: 'shed' }>[]): LifelineData['sheds'] {
  const sheds: { id: string; from: string; to: string; isWhole: boolean }[] = [];
  let from: string | null = null;
  for (const { id, on, body } of records) {
    if (body.stage === 'shed') {
      sheds.push({
        id,
        from: from ?? on,
        to: on,
        isWhole: body.complete !== false && body.eyeCaps !== false,
      });
      from = null;
    } else from ??= on;
  }
  const last = records.at(-1);
  if (from !== null && last) sheds.push({ id: last.id, from, to: last.on, isWhole: true });
  return sheds;
}
