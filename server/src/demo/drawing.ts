import sharp from 'sharp';
import type { Chance } from './chance.ts';
import type { Truth } from './truth.ts';

/* Our own drawing of a coiled snake from above, coloured by what it shows. Labelled as a drawing wherever it appears. */

interface Palette {
  ground: string;
  blotch: string;
  belly: string;
  eye: string;
}

function palette(truth: Truth): Palette {
  const shows = (allele: string): boolean => [...truth.values()].some((pair) => pair.includes(allele));
  const twice = (allele: string): boolean =>
    [...truth.values()].some(([a, b]) => a === allele && b === allele);
  if (twice('ultramel')) return { ground: '#d9a35f', blotch: '#9a6a3c', belly: '#f3dfc0', eye: '#7a2f22' };
  if (twice('desert-ghost'))
    return { ground: '#c9b38a', blotch: '#6d614c', belly: '#eee3c8', eye: '#3a3128' };
  if (twice('puzzle')) return { ground: '#b98b52', blotch: '#3d2f22', belly: '#efe2c6', eye: '#2b241c' };
  if (shows('banana')) return { ground: '#e6b94f', blotch: '#b79bb0', belly: '#f8eccb', eye: '#9a4a35' };
  if (shows('cinnamon')) return { ground: '#7f5433', blotch: '#2f2119', belly: '#d9c6a4', eye: '#2b241c' };
  if (shows('vanilla')) return { ground: '#b08a5b', blotch: '#54402c', belly: '#f0e4cb', eye: '#2b241c' };
  if (shows('leopard')) return { ground: '#a97c45', blotch: '#2a2018', belly: '#ecdcb8', eye: '#2b241c' };
  return openedUp(shows, twice('clown'));
}

/** The genes that brighten or turn the ground, one after another. */
function openedUp(shows: (allele: string) => boolean, isClown: boolean): Palette {
  let [h, s, l] = [34, 39, 40];
  let blotch = '#33271c';
  if (shows('pastel')) [s, l] = [s + 14, l + 9];
  if (shows('orange-dream')) [h, s, l] = [h - 8, s + 18, l + 4];
  if (shows('fire')) {
    l += 7;
    blotch = '#5a4026';
  }
  if (shows('enchi')) [h, s] = [h - 4, s + 6];
  if (isClown) blotch = '#241a12';
  return {
    ground: `hsl(${h} ${Math.min(88, s)}% ${Math.min(66, l)}%)`,
    blotch,
    belly: '#ecdcb8',
    eye: '#2b241c',
  };
}

/** Marks along the back: bands, a stripe, or side blotches. */
function marks(
  truth: Truth,
  line: readonly { x: number; y: number }[],
  thickness: (i: number) => number,
): string {
  const has = (allele: string): boolean => [...truth.values()].some((pair) => pair.includes(allele));
  const isClown = [...truth.values()].some(([a, b]) => a === 'clown' && b === 'clown');
  const along = line.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)},${y.toFixed(1)}`).join('');
  if (isClown)
    return `<path d="${along}" fill="none" stroke="currentColor" stroke-width="17" stroke-dasharray="90 12"/>`;
  if (!has('enchi')) return '';
  return line
    .filter((_, i) => i % 22 === 4 && i > 14)
    .map(({ x, y }, i) => {
      const at = line.findIndex((point) => point.x === x && point.y === y);
      const next = line[Math.min(at + 1, line.length - 1)]!;
      const turn = (Math.atan2(next.y - y, next.x - x) * 180) / Math.PI;
      return `<rect x="-4" y="${-thickness(at)}" width="${i % 3 === 0 ? 11 : 7}" height="${2 * thickness(at)}" rx="3" transform="translate(${x.toFixed(1)} ${y.toFixed(1)}) rotate(${turn.toFixed(1)})"/>`;
    })
    .join('');
}

const POINTS = 420;

/** A loose coil from the tail outside to the head in the middle. */
function coil(turns: number): { x: number; y: number }[] {
  return Array.from({ length: POINTS }, (_, i) => {
    const t = i / (POINTS - 1);
    const angle = t * turns * 2 * Math.PI;
    const radius = 238 - 186 * Math.pow(t, 0.9);
    return { x: 400 + radius * 1.32 * Math.cos(angle), y: 300 + radius * Math.sin(angle) };
  });
}

export function drawSnake(truth: Truth, number: string, chance: Chance): Promise<Buffer> {
  const colors = palette(truth);
  const line = coil(1.72 + chance.between(-0.1, 0.12));
  const thickness = (i: number): number => 7 + 31 * Math.sin(Math.min(1, i / (POINTS * 0.6)) * (Math.PI / 2));
  const circles = (grow: number): string =>
    line
      .map(
        ({ x, y }, i) =>
          `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${(thickness(i) + grow).toFixed(1)}"/>`,
      )
      .join('');
  const extra = [...truth.values()].some((pair) => pair.includes('leopard')) ? 2 : 1;
  const blotches = line
    .filter((_, i) => i % 17 === 8 && i > 20 && i < POINTS - 30)
    .flatMap(({ x, y }, i) =>
      Array.from({ length: extra }, () => {
        const r = chance.between(8, 15);
        return `<ellipse cx="${(x + chance.between(-12, 12)).toFixed(1)}" cy="${(y + chance.between(-12, 12)).toFixed(1)}" rx="${r.toFixed(1)}" ry="${(r * chance.between(0.6, 1.1)).toFixed(1)}" transform="rotate(${(i * 37) % 180} ${x.toFixed(1)} ${y.toFixed(1)})"/>`;
      }),
    )
    .join('');
  const special = marks(truth, line, thickness);
  const head = line.at(-1)!;
  const neck = line.at(-12)!;
  const turn = (Math.atan2(head.y - neck.y, head.x - neck.x) * 180) / Math.PI;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600" viewBox="0 0 800 600">
    <rect width="800" height="600" fill="#efe8da"/>
    <g fill="#00000016" transform="translate(5 11)">${circles(2)}</g>
    <g fill="${colors.blotch}">${circles(2.5)}</g>
    <g fill="${colors.ground}">${circles(0)}</g>
    <g fill="${colors.blotch}" opacity="${special ? 0.3 : 0.85}">${blotches}</g>
    <g fill="${colors.blotch}" color="${colors.blotch}" opacity="0.8">${special}</g>
    <g transform="translate(${head.x.toFixed(1)} ${head.y.toFixed(1)}) rotate(${turn.toFixed(1)}) scale(0.95)">
      <path d="M-40,-34 Q20,-52 62,-16 Q74,0 62,16 Q20,52 -40,34 Z" fill="${colors.ground}"/>
      <path d="M-34,-18 Q10,-28 44,-8 Q50,0 44,8 Q10,28 -34,18 Z" fill="${colors.blotch}" opacity="0.8"/>
      <circle cx="34" cy="-22" r="6" fill="${colors.eye}"/><circle cx="34" cy="22" r="6" fill="${colors.eye}"/>
      <circle cx="58" cy="-6" r="2.4" fill="${colors.belly}"/><circle cx="58" cy="6" r="2.4" fill="${colors.belly}"/>
    </g>
    <text x="24" y="576" font-family="DejaVu Sans, sans-serif" font-size="24" fill="#5b5243">${number} · drawing</text>
  </svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}
