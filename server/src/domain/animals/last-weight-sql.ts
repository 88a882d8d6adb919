/** SQL: joins `w`, the last weight of the animal `a`. */
export const LAST_WEIGHT = `left join lateral (
      select (r.body ->> 'massG')::double precision as mass_g, r.on_day from records r
       where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'weight' and r.voided_at is null
       order by r.on_day desc, r.recorded_at desc limit 1) w on true`;
