import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import * as fontkit from 'fontkit';

const FILES = join(
  dirname(createRequire(import.meta.url).resolve('@fontsource/atkinson-hyperlegible-next/package.json')),
  'files',
);

/** The face that labels and stamps are set in: I, l and 1, and O and 0, can be told apart. */
export const FACES = {
  regular: join(FILES, 'atkinson-hyperlegible-next-latin-400-normal.woff'),
  bold: join(FILES, 'atkinson-hyperlegible-next-latin-700-normal.woff'),
} as const;
type Face = keyof typeof FACES;

const opened = new Map<Face, fontkit.Font>();
function face(name: Face): fontkit.Font {
  let font = opened.get(name);
  if (!font) opened.set(name, (font = fontkit.openSync(FACES[name]) as fontkit.Font));
  return font;
}

/** How wide a line comes out, in the unit of its size. */
export function widthOf(text: string, size: number, name: Face = 'regular'): number {
  const font = face(name);
  return (font.layout(text).advanceWidth / font.unitsPerEm) * size;
}

/** A line as an SVG path, its baseline starting at 0, 0: it looks the same whatever fonts a machine has. */
export function outlineOf(text: string, size: number, name: Face = 'regular'): string {
  const font = face(name);
  const scale = size / font.unitsPerEm;
  const { glyphs, positions } = font.layout(text);
  let x = 0;
  return glyphs
    .map((glyph, i) => {
      const at = positions[i]!;
      const path = glyph.path.scale(scale, -scale).translate((x + at.xOffset) * scale, -at.yOffset * scale);
      x += at.xAdvance;
      return path.toSVG();
    })
    .join('');
}
