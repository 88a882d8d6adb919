import type { catalogueEntry, catalogueUpdate } from '../catalogue-requests.ts';
import type {
  CatalogueView,
  ClaimDetailView,
  ContradictionView,
  DoubtfulRecordView,
  KinNodeView,
  OccurrenceView,
  SurpriseView,
  SuspectView,
  TrialView,
  UnprovenGeneView,
} from '../genetics-responses.ts';
import { acts, changes, lists, reads, writes } from './route.ts';
import type { Created } from './answers.ts';

export const geneticsRoutes = {
  catalogue: reads<CatalogueView>()('/catalogue', 'Genes and words of the collection’s own'),
  addCatalogueEntry: writes<Created, typeof catalogueEntry>()(
    'post',
    '/catalogue/entries',
    'Add to the catalogue',
    { permission: 'breed' },
  ),
  tryCatalogueEntry: writes<TrialView, typeof catalogueEntry>()(
    'post',
    '/catalogue/trial',
    'What an entry of the catalogue would change',
    { permission: 'breed', status: 200, query: ['replaces'] },
  ),
  geneOccurrence: reads<OccurrenceView[]>()(
    '/catalogue/occurrence',
    'How many animals each locus is named of, the most first',
  ),
  tryCatalogueUpdate: reads<TrialView>()(
    '/catalogue/update',
    'What the update of the catalogue would change',
  ),
  takeCatalogueUpdate: writes<void, typeof catalogueUpdate>()(
    'post',
    '/catalogue/update',
    'Read by an update of the catalogue from now on',
    { permission: 'breed', status: 204 },
  ),
  changeCatalogueEntry: changes<Created, typeof catalogueEntry>()(
    'put',
    '/catalogue/entries/:id',
    'Change an entry of the catalogue',
    { permission: 'breed' },
  ),
  removeCatalogueEntry: acts<void>()('delete', '/catalogue/entries/:id', 'Remove an entry of the catalogue', {
    permission: 'breed',
  }),
  unprovenGenes: lists<UnprovenGeneView>()(
    '/catalogue/unproven',
    'Genes that are not proven, and what would prove them',
    { key: 'locus' },
  ),
  contradictions: lists<ContradictionView>()('/contradictions', 'Records that cannot all be true', {
    key: 'id',
  }),
  suspects: lists<SuspectView>()(
    '/suspects',
    'Records to look at again so that the records agree, the most telling first',
    { key: 'id' },
  ),
  doubtful: lists<DoubtfulRecordView>()(
    '/doubtful-records',
    'Records more likely wrong than right though nothing contradicts them',
    { key: 'id' },
  ),
  surprises: lists<SurpriseView>()('/surprises', 'Genes that founders carry though nobody said so', {
    key: 'id',
  }),
  claimDetail: reads<ClaimDetailView>()('/animals/:id/claims/:locus/:allele', 'What a claim depends on'),
  kin: reads<KinNodeView[]>()('/animals/:id/kin', 'Relatives of an animal', {
    query: ['generations', 'locus', 'allele'],
  }),
};
