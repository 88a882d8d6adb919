import type { InquiryView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** What visitors asked, the newest first. */
export function inquiryViews(work: Work): Promise<InquiryView[]> {
  return select<InquiryView>(
    work,
    `select i.id, i.name, i.email, i.text, i.asked_at as "askedAt", i.answered_at as "answeredAt", i.version,
            case when a.id is null then null else json_build_object('id', a.id, 'number', a.number) end as animal
       from inquiries i left join animals a on a.collection_id = i.collection_id and a.id = i.animal_id
      where i.collection_id = :collectionId order by i.asked_at desc`,
  );
}
