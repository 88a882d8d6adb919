import type { ClimateView } from '@karyotome/contract';
import type { ClimatePlaceRow } from '../../db/breeding-rows.ts';
import { select, type Work } from '../../db/work.ts';

export type ClimateKind = ClimatePlaceRow['kind'];

type LastReading = { placeId: string } & NonNullable<ClimateView['last']>;

/** The last reading at each place. */
export function lastReadings(work: Work, params: { readonly kind: ClimateKind }): Promise<LastReading[]> {
  return select<LastReading>(
    work, // One look into the index for each place, however many readings there are.
    `select last.place_id as "placeId", last.at, last.celsius, last.humidity, last.source
       from climate_places p cross join lateral (
         select * from readings r where r.collection_id = p.collection_id and r.place_id = p.id
          order by r.at desc limit 1) last
      where p.collection_id = :collectionId and p.kind = :kind`,
    params,
  );
}

/** Readings by the hour: mean, extremes, humidity. */
export function hourlyReadings(
  work: Work,
  params: { readonly kind: ClimateKind; readonly days: number },
): Promise<({ placeId: string } & ClimateView['series'][number])[]> {
  return select<{ placeId: string } & ClimateView['series'][number]>(
    work,
    `select r.place_id as "placeId", date_trunc('hour', r.at) as at, avg(r.celsius) as celsius,
            min(r.celsius) as low, max(r.celsius) as high, avg(r.humidity) as humidity
       from readings r join climate_places p on p.collection_id = r.collection_id and p.id = r.place_id
      where r.collection_id = :collectionId and p.kind = :kind and r.at > now() - make_interval(days => :days)
      group by 1, 2 order by 1, 2`,
    params,
  );
}
