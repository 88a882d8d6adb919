/**
 * Where the eggs of a clutch lie at first: in rows, each shifted by half an egg, in hundredths of the box.
 *
 * @example boxPlaces(1) // [{"x":25,"y":50}]
 */
export function boxPlaces(count: number): { x: number; y: number }[] {
  const perRow = Math.max(2, Math.min(6, Math.ceil(Math.sqrt(count * 1.6))));
  const rows = Math.ceil(count / perRow);
  return Array.from({ length: count }, (_, i) => {
    const row = Math.floor(i / perRow);
    const shift = row % 2 === 1 ? 0.5 : 0;
    return {
      x: Math.round(((i % perRow) + 0.75 + shift) * (100 / (perRow + 1))),
      y: Math.round((row + 0.5) * (100 / rows)),
    };
  });
}
