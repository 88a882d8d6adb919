import type { TodayLine } from '@karyotome/contract';

/** Where a line leads: eggs have their own page, young stand on the bench. */
export function homeOf({ animal, clutch, incubator, room, rack, kind }: TodayLine): string {
  if (kind === 'season') return '/season';
  if (kind === 'stock') return '/today/feeding';
  if (rack) return '/today/health';
  if (kind === 'heat') return '/racks';
  if (kind === 'identify' && animal?.clutchId) return `/bench/${animal.clutchId}?one=${animal.id}`;
  if (animal) return `/animals/${animal.id}`;
  if (clutch) return kind === 'eggs' ? `/season/clutches/${clutch.id}` : `/bench/${clutch.id}`;
  if (room) return '/racks/climate';
  return incubator ? '/season/incubators' : '/today';
}

export function subjectOf({ animal, clutch, incubator, room, zone, rack, kind }: TodayLine): string {
  if (rack) return rack.name;
  if (zone) return `${zone.rack}, ${zone.name}`;
  if (kind === 'stock') return 'Freezer';
  return animal?.number ?? (clutch ? `Clutch ${clutch.name}` : ((incubator ?? room)?.name ?? ''));
}

/** Lines about one animal that follow one another, as one: a tub is opened once for all that it needs. */
export function byAnimal(lines: readonly TodayLine[]): TodayLine[][] {
  const rows: TodayLine[][] = [];
  for (const line of lines) {
    const last = rows.at(-1);
    if (last && line.animal && last[0]!.animal?.id === line.animal.id) last.push(line);
    else rows.push([line]);
  }
  return rows;
}
