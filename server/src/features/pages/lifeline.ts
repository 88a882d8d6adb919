import type { PublicAnimal } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';
import type { Reader } from '@karyotome/words';
import { h, type VNode } from 'vue';

const WIDTH = 760;
const LEFT = 8;
const TOP = 28;
const WEIGHT_HEIGHT = 130;
const MEALS_Y = 180;
const SHEDS_Y = 204;
const HEIGHT = 232;

/** Weights, meals and sheds on one line of time, drawn without any script. Null with less than two days of records. */
export function lifeline(
  { weights, feedings, sheds }: Pick<PublicAnimal, 'weights' | 'feedings' | 'sheds'>,
  reader: Reader,
): VNode | null {
  const days = [...weights, ...feedings, ...sheds].map(({ on }) => on).toSorted();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined || first === last) return null;
  const span = daysBetween(first, last);
  const x = (day: string): number =>
    Math.round(10 * (LEFT + (daysBetween(first, day) / span) * (WIDTH - 2 * LEFT))) / 10;
  const most = Math.max(1, ...weights.map(({ massG }) => massG));
  const y = (massG: number): number => Math.round(10 * (TOP + WEIGHT_HEIGHT * (1 - massG / most))) / 10;
  const line = (day: string, top: number, bottom: number, color: string): VNode =>
    h('line', { x1: x(day), x2: x(day), y1: top, y2: bottom, stroke: color, 'stroke-width': 2.5 });
  const newest = weights.at(-1);
  return h(
    'svg',
    {
      viewBox: `0 0 ${WIDTH} ${HEIGHT}`,
      role: 'img',
      'aria-label': sentence({ weights, feedings, sheds }, reader),
    },
    [
      h('line', {
        x1: 0,
        x2: WIDTH,
        y1: TOP + WEIGHT_HEIGHT,
        y2: TOP + WEIGHT_HEIGHT,
        stroke: 'var(--hair)',
      }),
      h('polyline', {
        points: weights.map(({ on, massG }) => `${x(on)},${y(massG)}`).join(' '),
        fill: 'none',
        stroke: 'var(--green)',
        'stroke-width': 2.5,
      }),
      ...weights.map(({ on, massG }) => h('circle', { cx: x(on), cy: y(massG), r: 3, fill: 'var(--green)' })),
      newest
        ? h(
            'text',
            { x: WIDTH - LEFT, y: y(newest.massG) - 12, 'text-anchor': 'end' },
            reader.mass(newest.massG),
          )
        : null,
      ...feedings.map(({ on, taken }) =>
        taken
          ? line(on, MEALS_Y - 6, MEALS_Y + 6, 'var(--green)')
          : line(on, MEALS_Y - 2, MEALS_Y + 2, 'var(--brown)'),
      ),
      ...sheds.map(({ on }) => h('circle', { cx: x(on), cy: SHEDS_Y, r: 4, fill: 'var(--brown)' })),
      h('text', { x: LEFT, y: HEIGHT - 4 }, reader.day(first)),
      h('text', { x: WIDTH - LEFT, y: HEIGHT - 4, 'text-anchor': 'end' }, reader.day(last)),
    ],
  );
}

function sentence(
  { weights, feedings, sheds }: Pick<PublicAnimal, 'weights' | 'feedings' | 'sheds'>,
  reader: Reader,
): string {
  const [first, last] = [weights[0], weights.at(-1)];
  const taken = feedings.filter((meal) => meal.taken).length;
  return [
    first && last
      ? `Weight from ${reader.mass(first.massG)} on ${reader.day(first.on)} to ${reader.mass(last.massG)} on ${reader.day(last.on)}`
      : 'No weight',
    `${reader.number(taken)} of ${reader.count(feedings.length, 'meal', 'meals')} taken`,
    reader.count(sheds.length, 'shed', 'sheds'),
  ].join('; ');
}
