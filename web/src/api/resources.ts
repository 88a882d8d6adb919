import type {
  AnimalChange,
  AnimalSummary,
  AnimalView,
  BenchView,
  BoxChange,
  CallsView,
  CatalogueEntryInput,
  CatalogueView,
  ClaimDetailView,
  ClutchChange,
  ClutchView,
  CollectionSettings,
  ContradictionView,
  Correction,
  DoneClutchView,
  EggEventsVoiding,
  FeedView,
  FeedingView,
  Hatching,
  HeatZoneInput,
  ImportPreview,
  IncubatorView,
  Introduction,
  JobProgress,
  KinNodeView,
  LabelOrder,
  LabelPreview,
  LadderView,
  LearnedView,
  LookChange,
  ManyMoves,
  NewAnimal,
  NewClutch,
  NewEggEvents,
  NewIncubator,
  NewLadder,
  NewOpinion,
  NewOpinionLink,
  NewRack,
  NewReading,
  NewRecord,
  NewSeasonEvent,
  NewStockEntry,
  OutsideOpinions,
  OutsideView,
  PairingView,
  PlanInput,
  PlannerView,
  PublicAnimal,
  RackChange,
  RackView,
  ReadingsImport,
  RoomAssumptions,
  RoomView,
  RoundEntry,
  RoundResult,
  RoundView,
  RulesChange,
  SeasonBoardView,
  SeasonEventCorrection,
  SessionView,
  SetUpProposal,
  SettingUp,
  ShowcaseLine,
  SignIn,
  SiresChange,
  SortingChange,
  SurfaceCheck,
  TodayView,
  RecordWarning,
} from '@karyotome/contract';
import type { HeatFault, SeasonRules } from '@karyotome/core';
import { request } from './client.ts';

/* One function per endpoint; stateless. */

type Created = { id: string };
/** Long work has a name, by which its progress is asked for, and can be given up. */
export interface LongWork {
  readonly job: string;
  readonly signal: AbortSignal;
}

export const api = {
  session: () => request<SessionView>('GET', '/session'),
  signIn: (body: SignIn) => request<SessionView>('POST', '/session', { body }),
  signOut: () => request<void>('DELETE', '/session'),
  changeSettings: (body: CollectionSettings, version: number) =>
    request<CollectionSettings & { version: number }>('PUT', '/settings', { body, version }),

  today: () => request<TodayView>('GET', '/today'),
  animals: () => request<AnimalSummary[]>('GET', '/animals'),
  animal: (id: string) => request<AnimalView>('GET', `/animals/${id}`),
  addAnimal: (body: NewAnimal) => request<Created>('POST', '/animals', { body }),
  changeAnimal: (id: string, body: AnimalChange, version: number) =>
    request<Created>('PATCH', `/animals/${id}`, { body, version }),
  deleteAnimal: (id: string) => request<void>('DELETE', `/animals/${id}`),
  previewImport: (file: Blob, work: LongWork) =>
    request<ImportPreview>('POST', '/imports/preview', { file, type: 'text/csv', ...work }),
  runImport: (file: Blob, work: LongWork) =>
    request<{ imported: number }>('POST', '/imports', { file, type: 'text/csv', ...work }),
  job: (id: string) => request<JobProgress>('GET', `/jobs/${id}`),

  addRecord: (animalId: string, body: NewRecord) =>
    request<Created & { warnings: RecordWarning[] }>('POST', `/animals/${animalId}/records`, { body }),
  voidRecord: (id: string, reason: string) =>
    request<void>('POST', `/records/${id}/void`, { body: { reason } }),
  correctRecord: (id: string, body: Correction) =>
    request<Created>('POST', `/records/${id}/correct`, { body }),

  pairings: () => request<PairingView[]>('GET', '/pairings'),
  addClutch: (body: NewClutch) => request<Created>('POST', '/clutches', { body }),
  changeLook: (animalId: string, body: LookChange, version: number) =>
    request<{ version: number }>('PUT', `/animals/${animalId}/look`, { body, version }),
  changeSorting: (clutchId: string, body: SortingChange, version: number) =>
    request<{ version: number }>('PUT', `/clutches/${clutchId}/sorting`, { body, version }),
  calls: () => request<CallsView>('GET', '/calls'),
  setUpProposal: (clutchId: string) => request<SetUpProposal>('GET', `/clutches/${clutchId}/set-up`),
  setUp: (clutchId: string, body: SettingUp) =>
    request<{ ids: string[] }>('POST', `/clutches/${clutchId}/set-up`, { body }),
  addOpinion: (animalId: string, body: NewOpinion) =>
    request<Created>('POST', `/animals/${animalId}/opinions`, { body }),
  removeOpinion: (id: string) => request<void>('DELETE', `/opinions/${id}`),
  addOpinionLink: (clutchId: string, body: NewOpinionLink) =>
    request<Created & { path: string }>('POST', `/clutches/${clutchId}/opinion-links`, { body }),
  revokeOpinionLink: (id: string) => request<void>('DELETE', `/opinion-links/${id}`),
  outside: (token: string) => request<OutsideView>('GET', `/opinion-links/${encodeURIComponent(token)}`),
  answerOutside: (token: string, body: OutsideOpinions) =>
    request<void>('POST', `/opinion-links/${encodeURIComponent(token)}`, { body }),
  outsidePictureUrl: (token: string, id: string) =>
    `/api/v1/opinion-links/${encodeURIComponent(token)}/pictures/${id}`,
  previewLabels: (body: LabelOrder) => request<LabelPreview>('POST', '/labels/preview', { body }),
  printLabels: (body: LabelOrder) => request<Created>('POST', '/labels', { body }),
  labelsUrl: (id: string) => `/api/v1/labels/${id}`,
  bench: (clutchId: string) => request<BenchView>('GET', `/clutches/${clutchId}/bench`),
  hatch: (clutchId: string, body: Hatching, version: number) =>
    request<{ ids: string[]; numbers: string[] }>('POST', `/clutches/${clutchId}/hatchlings`, {
      body,
      version,
    }),

  season: () => request<SeasonBoardView>('GET', '/season'),
  changeSeasonRules: (body: SeasonRules, version: number) =>
    request<{ version: number }>('PUT', '/season/rules', { body, version }),
  introduce: (body: Introduction) =>
    request<{ pairingId: string; eventId: string }>('POST', '/season/introductions', { body }),
  addSeasonEvent: (pairingId: string, body: NewSeasonEvent) =>
    request<Created>('POST', `/pairings/${pairingId}/events`, { body }),
  voidSeasonEvent: (id: string, reason: string) =>
    request<void>('POST', `/pairing-events/${id}/void`, { body: { reason } }),
  correctSeasonEvent: (id: string, body: SeasonEventCorrection) =>
    request<Created>('POST', `/pairing-events/${id}/correct`, { body }),
  changeSires: (pairingId: string, body: SiresChange, version: number) =>
    request<{ version: number }>('PUT', `/pairings/${pairingId}/sires`, { body, version }),

  clutch: (id: string) => request<ClutchView>('GET', `/clutches/${id}`),
  changeClutch: (id: string, body: ClutchChange, version: number) =>
    request<{ version: number }>('PATCH', `/clutches/${id}`, { body, version }),
  changeBox: (clutchId: string, body: BoxChange, version: number) =>
    request<{ version: number }>('PUT', `/clutches/${clutchId}/eggs`, { body, version }),
  addEggEvents: (clutchId: string, body: NewEggEvents) =>
    request<{ ids: string[] }>('POST', `/clutches/${clutchId}/egg-events`, { body }),
  voidEggEvents: (body: EggEventsVoiding) => request<void>('POST', '/egg-events/void', { body }),
  makeClutchCard: (clutchId: string) => request<Created>('POST', `/clutches/${clutchId}/cards`, { body: {} }),
  clutchCardUrl: (id: string) => `/api/v1/clutch-cards/${id}`,
  hatchRates: () => request<DoneClutchView[]>('GET', '/hatch-rates'),

  incubators: () => request<IncubatorView[]>('GET', '/incubators'),
  addIncubator: (body: NewIncubator) => request<Created>('POST', '/incubators', { body }),
  changeIncubator: (id: string, body: NewIncubator, version: number) =>
    request<Created>('PUT', `/incubators/${id}`, { body, version }),
  addReading: (incubatorId: string, body: NewReading) =>
    request<{ at: string }>('POST', `/incubators/${incubatorId}/readings`, { body }),
  importReadings: (incubatorId: string, file: Blob, timeZone: string, work: LongWork) =>
    request<ReadingsImport>(
      'POST',
      `/incubators/${incubatorId}/readings/import?${new URLSearchParams({ timeZone })}`,
      { file, type: 'text/csv', ...work },
    ),

  calendarFeeds: () => request<FeedView[]>('GET', '/calendar-feeds'),
  addCalendarFeed: (name: string) => request<Created>('POST', '/calendar-feeds', { body: { name } }),
  revokeCalendarFeed: (id: string) => request<void>('DELETE', `/calendar-feeds/${id}`),

  planner: () => request<PlannerView>('GET', '/planner'),

  catalogue: () => request<CatalogueView>('GET', '/catalogue'),
  addCatalogueEntry: (body: CatalogueEntryInput) => request<Created>('POST', '/catalogue/entries', { body }),
  changeCatalogueEntry: (id: string, body: CatalogueEntryInput, version: number) =>
    request<Created>('PUT', `/catalogue/entries/${id}`, { body, version }),
  removeCatalogueEntry: (id: string) => request<void>('DELETE', `/catalogue/entries/${id}`),

  contradictions: () => request<ContradictionView[]>('GET', '/contradictions'),
  claimDetail: (animalId: string, locus: string, allele: string) =>
    request<ClaimDetailView>(
      'GET',
      `/animals/${animalId}/claims/${encodeURIComponent(locus)}/${encodeURIComponent(allele)}`,
    ),
  kin: (animalId: string, generations: number, gene: { locus: string; allele: string } | null) =>
    request<KinNodeView[]>(
      'GET',
      `/animals/${animalId}/kin?${new URLSearchParams({ generations: String(generations), ...gene })}`,
    ),

  round: () => request<RoundView>('GET', '/rounds'),
  sendRound: (entries: RoundEntry[], accountId: string) =>
    request<{ results: RoundResult[] }>('POST', '/rounds/entries', { body: { entries, accountId } }),

  feeding: () => request<FeedingView>('GET', '/feeding'),
  changeFeedingRules: (body: RulesChange, version: number) =>
    request<{ version: number }>('PUT', '/feeding/rules', { body, version }),
  addFeedingPlan: (body: PlanInput) => request<Created>('POST', '/feeding/plans', { body }),
  changeFeedingPlan: (key: string, body: PlanInput, version: number) =>
    request<Created>('PUT', `/feeding/plans/${encodeURIComponent(key)}`, { body, version }),
  removeFeedingPlan: (key: string, version: number) =>
    request<void>('DELETE', `/feeding/plans/${encodeURIComponent(key)}`, { version }),
  addStock: (body: NewStockEntry) => request<Created>('POST', '/stock', { body }),
  voidStock: (id: string, reason: string) => request<void>('POST', `/stock/${id}/void`, { body: { reason } }),

  room: () => request<RoomView>('GET', '/room'),
  changeRoomAssumptions: (body: RoomAssumptions, version: number) =>
    request<{ version: number }>('PUT', '/room/assumptions', { body, version }),

  moveMany: (body: ManyMoves) => request<{ ids: string[] }>('POST', '/moves', { body }),
  voidRecords: (ids: string[]) => request<void>('POST', '/records/void', { body: { ids } }),
  learnedMoves: () => request<LearnedView>('GET', '/moves/learned'),
  changeRack: (id: string, body: RackChange, version: number) =>
    request<Created>('PUT', `/racks/${id}`, { body, version }),
  addHeatZone: (body: HeatZoneInput) => request<Created>('POST', '/heat-zones', { body }),
  changeHeatZone: (id: string, body: HeatZoneInput, version: number) =>
    request<Created>('PUT', `/heat-zones/${id}`, { body, version }),
  removeHeatZone: (id: string) => request<void>('DELETE', `/heat-zones/${id}`),
  addSurfaceCheck: (zoneId: string, body: SurfaceCheck) =>
    request<Created & { faults: HeatFault[] }>('POST', `/heat-zones/${zoneId}/checks`, { body }),
  voidSurfaceCheck: (id: string, reason: string) =>
    request<void>('POST', `/surface-checks/${id}/void`, { body: { reason } }),

  racks: () => request<RackView[]>('GET', '/racks'),
  addRack: (body: NewRack) => request<Created>('POST', '/racks', { body }),
  deleteRack: (id: string) => request<void>('DELETE', `/racks/${id}`),
  ladders: () => request<LadderView[]>('GET', '/ladders'),
  addLadder: (body: NewLadder) => request<Created>('POST', '/ladders', { body }),
  changeLadder: (id: string, body: NewLadder, version: number) =>
    request<Created>('PUT', `/ladders/${id}`, { body, version }),

  addPicture: (animalId: string, file: File, caption: string, key?: string) =>
    request<Created>('POST', `/animals/${animalId}/pictures?caption=${encodeURIComponent(caption)}`, {
      file,
      ...(key ? { key } : {}),
    }),
  addCardPicture: (clutchId: string, file: File) =>
    request<Created>('POST', `/clutches/${clutchId}/pictures`, { file }),
  deletePicture: (id: string) => request<void>('DELETE', `/pictures/${id}`),
  pictureUrl: (id: string) => `/api/v1/pictures/${id}`,
  thumbUrl: (id: string) => `/api/v1/pictures/${id}?copy=thumb`,
  originalUrl: (id: string) => `/api/v1/pictures/${id}?copy=original`,

  showcase: () => request<ShowcaseLine[]>('GET', '/showcase'),
  publish: (animalId: string, text: string | null) =>
    request<{ slug: string }>('PUT', `/animals/${animalId}/publication`, { body: { text } }),
  withdraw: (animalId: string) => request<void>('DELETE', `/animals/${animalId}/publication`),
  published: (slug: string) => request<PublicAnimal>('GET', `/public/${encodeURIComponent(slug)}`),
  publishedPictureUrl: (slug: string, id: string) =>
    `/api/v1/public/${encodeURIComponent(slug)}/pictures/${id}`,
  publishedDownloadUrl: (slug: string) => `/api/v1/public/${encodeURIComponent(slug)}?download=1`,
};
