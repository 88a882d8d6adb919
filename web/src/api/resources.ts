import {
  ROUTES,
  type AnimalChange,
  type AnimalListInput,
  type BoxChange,
  type BreederInput,
  type CatalogueEntryInput,
  type ClutchChange,
  type CollectionSettings,
  type Correction,
  type EggEventsVoiding,
  type Hatching,
  type HeatZoneInput,
  type Introduction,
  type LabelOrder,
  type ObservationsChange,
  type LettersInput,
  type ManyMoves,
  type NewAnimal,
  type NewClutch,
  type NewEggEvents,
  type NewLadder,
  type NewOpinion,
  type NewOpinionLink,
  type NewRack,
  type NewRecord,
  type NewSeasonEvent,
  type NewStatusEvents,
  type NewStockEntry,
  type OfferInput,
  type OutsideOpinions,
  type PersonInput,
  type PlanInput,
  type PricesInput,
  type RestoreInput,
  type RackChange,
  type RoomAssumptions,
  type RoundEntry,
  type RulesChange,
  type SeasonEventCorrection,
  type SettingUp,
  type SignIn,
  type SiresChange,
  type SortingChange,
  type StatusCorrection,
  type SurfaceCheck,
  type Trust,
  type WaitingOffer,
  type WishAnswerInput,
  type WishInput,
} from '@karyotome/contract';
import type { SaleRules, SeasonRules } from '@karyotome/core';
import { call, callAll, urlOf } from './call.ts';
import { climateApi } from './climate-resources.ts';
import { exportApi } from './export-resources.ts';
import { importApi } from './import-resources.ts';
import { peopleApi } from './people-resources.ts';
import { pictureApi } from './picture-resources.ts';
import { projectApi } from './project-resources.ts';

/* One function per route, by the route's own name; stateless. */

/** A statement or a package: not as JSON, which would be read before it is looked at. */
const PACKAGE = 'application/octet-stream';
const R = ROUTES;

export const api = {
  session: () => call(R.session, {}),
  signIn: (body: SignIn) => call(R.signIn, { body }),
  signOut: () => call(R.signOut, {}),
  backup: () => call(R.backup, {}),
  exportUrl: () => urlOf(R.exportAll, {}),
  changeSettings: (body: CollectionSettings, version: number) => call(R.changeSettings, { body, version }),

  today: (query: Readonly<Record<string, string>>) => call(R.today, { query }),
  animals: (query: Readonly<Record<string, string>>) => call(R.animals, { query }),
  growth: (query: Readonly<Record<string, string>>) => call(R.growth, { query }),
  search: (q: string) => call(R.search, { query: { q } }),
  animal: (id: string) => call(R.animal, { params: { id } }),
  addAnimal: (body: NewAnimal) => call(R.addAnimal, { body }),
  changeAnimal: (id: string, body: AnimalChange, version: number) =>
    call(R.changeAnimal, { params: { id }, body, version }),
  deleteAnimal: (id: string, reason: string) => call(R.deleteAnimal, { params: { id }, body: { reason } }),
  bin: () => callAll(R.bin),
  restoreFromBin: (id: string) => call(R.restoreFromBin, { params: { id } }),
  eraseFromBin: (id: string) => call(R.eraseFromBin, { params: { id } }),
  job: (id: string) => call(R.job, { params: { id } }),

  addRecord: (id: string, body: NewRecord) => call(R.addRecord, { params: { id }, body }),
  voidRecord: (id: string, reason: string) => call(R.voidRecord, { params: { id }, body: { reason } }),
  correctRecord: (id: string, body: Correction) => call(R.correctRecord, { params: { id }, body }),
  voidRecords: (ids: string[]) => call(R.voidRecords, { body: { ids } }),

  animalFilter: (text: string) => call(R.animalFilter, { query: { text } }),
  animalLists: () => callAll(R.animalLists),
  addAnimalList: (body: AnimalListInput) => call(R.addAnimalList, { body }),
  removeAnimalList: (id: string, version: number) => call(R.removeAnimalList, { params: { id }, version }),
  unprovenGenes: () => callAll(R.unprovenGenes),
  pairings: () => callAll(R.pairings),
  addClutch: (body: NewClutch) => call(R.addClutch, { body }),
  changeObservations: (id: string, body: ObservationsChange, version: number) =>
    call(R.changeObservations, { params: { id }, body, version }),
  changeSorting: (id: string, body: SortingChange, version: number) =>
    call(R.changeSorting, { params: { id }, body, version }),
  calls: () => call(R.calls, {}),
  setUpProposal: (id: string) => call(R.setUpProposal, { params: { id } }),
  setUp: (id: string, body: SettingUp) => call(R.setUp, { params: { id }, body }),
  addOpinion: (id: string, body: NewOpinion) => call(R.addOpinion, { params: { id }, body }),
  removeOpinion: (id: string) => call(R.removeOpinion, { params: { id } }),
  addOpinionLink: (id: string, body: NewOpinionLink) => call(R.addOpinionLink, { params: { id }, body }),
  revokeOpinionLink: (id: string) => call(R.revokeOpinionLink, { params: { id } }),
  outside: (token: string) => call(R.outside, { params: { token } }),
  answerOutside: (token: string, body: OutsideOpinions) => call(R.answerOutside, { params: { token }, body }),
  outsidePictureUrl: (token: string, id: string) => urlOf(R.outsidePicture, { token, id }),
  previewLabels: (body: LabelOrder) => call(R.previewLabels, { body }),
  printLabels: (body: LabelOrder) => call(R.printLabels, { body }),
  labelsUrl: (id: string) => urlOf(R.labels, { id }),
  bench: (id: string) => call(R.bench, { params: { id } }),
  hatch: (id: string, body: Hatching, version: number) => call(R.hatch, { params: { id }, body, version }),

  season: () => call(R.season, {}),
  seasonFemales: (query: Readonly<Record<string, string>>) => call(R.seasonFemales, { query }),
  seasonMales: (query: Readonly<Record<string, string>>) => call(R.seasonMales, { query }),
  relatedMates: (id: string) => callAll(R.relatedMates, { id }),
  changeSeasonRules: (body: SeasonRules, version: number) => call(R.changeSeasonRules, { body, version }),
  introduce: (body: Introduction) => call(R.introduce, { body }),
  addSeasonEvent: (id: string, body: NewSeasonEvent) => call(R.addSeasonEvent, { params: { id }, body }),
  voidSeasonEvent: (id: string, reason: string) =>
    call(R.voidSeasonEvent, { params: { id }, body: { reason } }),
  correctSeasonEvent: (id: string, body: SeasonEventCorrection) =>
    call(R.correctSeasonEvent, { params: { id }, body }),
  changeSires: (id: string, body: SiresChange, version: number) =>
    call(R.changeSires, { params: { id }, body, version }),

  clutch: (id: string) => call(R.clutch, { params: { id } }),
  changeClutch: (id: string, body: ClutchChange, version: number) =>
    call(R.changeClutch, { params: { id }, body, version }),
  changeBox: (id: string, body: BoxChange, version: number) =>
    call(R.changeBox, { params: { id }, body, version }),
  addEggEvents: (id: string, body: NewEggEvents) => call(R.addEggEvents, { params: { id }, body }),
  voidEggEvents: (body: EggEventsVoiding) => call(R.voidEggEvents, { body }),
  makeClutchCard: (id: string) => call(R.makeClutchCard, { params: { id } }),
  clutchCardUrl: (id: string) => urlOf(R.clutchCard, { id }),
  hatchRates: () => callAll(R.hatchRates),

  calendarFeeds: () => callAll(R.calendarFeeds),
  addCalendarFeed: (name: string) => call(R.addCalendarFeed, { body: { name } }),
  revokeCalendarFeed: (id: string) => call(R.revokeCalendarFeed, { params: { id } }),

  planner: () => call(R.planner, {}),

  ...climateApi,
  ...peopleApi,
  ...pictureApi,
  ...projectApi,
  ...exportApi,
  ...importApi,

  catalogue: () => call(R.catalogue, {}),
  /** @param replaces - the id of the entry that is edited */
  tryCatalogueEntry: (entry: CatalogueEntryInput, replaces: string | null = null) =>
    call(R.tryCatalogueEntry, { body: entry, ...(replaces === null ? {} : { query: { replaces } }) }),
  geneOccurrence: () => call(R.geneOccurrence, {}),
  tryCatalogueUpdate: () => call(R.tryCatalogueUpdate, {}),
  takeCatalogueUpdate: (version: string) => call(R.takeCatalogueUpdate, { body: { version } }),
  addCatalogueEntry: (body: CatalogueEntryInput) => call(R.addCatalogueEntry, { body }),
  changeCatalogueEntry: (id: string, body: CatalogueEntryInput, version: number) =>
    call(R.changeCatalogueEntry, { params: { id }, body, version }),
  removeCatalogueEntry: (id: string) => call(R.removeCatalogueEntry, { params: { id } }),

  contradictions: () => callAll(R.contradictions),
  suspects: () => callAll(R.suspects),
  doubtful: () => callAll(R.doubtful),
  surprises: () => callAll(R.surprises),
  claimDetail: (id: string, locus: string, allele: string) =>
    call(R.claimDetail, { params: { id, locus, allele } }),
  kin: (id: string, generations: number, gene: { locus: string; allele: string } | null) =>
    call(R.kin, { params: { id }, query: { generations: String(generations), ...gene } }),

  round: () => call(R.round, {}),
  roundRack: (id: string) => call(R.roundRack, { params: { id } }),
  sheds: () => call(R.sheds, {}),
  healthCases: () => callAll(R.healthCases),
  miteWatches: () => callAll(R.miteWatches),
  sendRound: (entries: RoundEntry[], accountId: string) =>
    call(R.sendRound, { body: { entries, accountId } }),

  feeding: () => call(R.feeding, {}),
  feedingNight: () => callAll(R.feedingNight),
  feedingLessons: () => call(R.feedingLessons, {}),
  changeFeedingRules: (body: RulesChange, version: number) => call(R.changeFeedingRules, { body, version }),
  addFeedingPlan: (body: PlanInput) => call(R.addFeedingPlan, { body }),
  changeFeedingPlan: (key: string, body: PlanInput, version: number) =>
    call(R.changeFeedingPlan, { params: { key }, body, version }),
  removeFeedingPlan: (key: string, version: number) =>
    call(R.removeFeedingPlan, { params: { key }, version }),
  addStock: (body: NewStockEntry) => call(R.addStock, { body }),
  voidStock: (id: string, reason: string) => call(R.voidStock, { params: { id }, body: { reason } }),

  room: () => call(R.room, {}),
  changeRoomAssumptions: (body: RoomAssumptions, version: number) =>
    call(R.changeRoomAssumptions, { body, version }),

  moveMany: (body: ManyMoves) => call(R.moveMany, { body }),
  learnedMoves: () => call(R.learnedMoves, {}),
  addHeatZone: (body: HeatZoneInput) => call(R.addHeatZone, { body }),
  changeHeatZone: (id: string, body: HeatZoneInput, version: number) =>
    call(R.changeHeatZone, { params: { id }, body, version }),
  deleteHeatZone: (id: string, reason: string) =>
    call(R.deleteHeatZone, { params: { id }, body: { reason } }),
  addSurfaceCheck: (id: string, body: SurfaceCheck) => call(R.addSurfaceCheck, { params: { id }, body }),
  voidSurfaceCheck: (id: string, reason: string) =>
    call(R.voidSurfaceCheck, { params: { id }, body: { reason } }),

  racks: () => callAll(R.racks),
  rack: (id: string) => call(R.rack, { params: { id } }),
  tubs: (filter: Readonly<Record<string, string>>) => callAll(R.tubs, {}, filter),
  orderRacks: (ids: string[]) => call(R.orderRacks, { body: { ids } }),
  addRacks: (racks: NewRack[]) => call(R.addRacks, { body: { racks } }),
  addRack: (body: NewRack) => call(R.addRack, { body }),
  changeRack: (id: string, body: RackChange, version: number) =>
    call(R.changeRack, { params: { id }, body, version }),
  deleteRack: (id: string, reason: string) => call(R.deleteRack, { params: { id }, body: { reason } }),
  ladders: () => callAll(R.ladders),
  addLadder: (body: NewLadder) => call(R.addLadder, { body }),
  changeLadder: (id: string, body: NewLadder, version: number) =>
    call(R.changeLadder, { params: { id }, body, version }),

  sales: () => callAll(R.sales),
  salesTableUrl: () => urlOf(R.salesTable, {}),
  salesSettings: () => call(R.salesSettings, {}),
  changeSaleRules: (body: SaleRules, version: number) => call(R.changeSaleRules, { body, version }),
  desk: (id: string) => call(R.desk, { params: { id } }),
  statusEvents: (id: string) => callAll(R.statusEvents, { id }),
  addStatusEvents: (body: NewStatusEvents) => call(R.addStatusEvents, { body }),
  voidStatusEvent: (id: string, reason: string) =>
    call(R.voidStatusEvent, { params: { id }, body: { reason } }),
  correctStatusEvent: (id: string, body: StatusCorrection) =>
    call(R.correctStatusEvent, { params: { id }, body }),
  receiptUrl: (id: string) => urlOf(R.receipt, { id }),
  careSheetUrl: (id: string, isWithHealth: boolean) =>
    urlOf(R.careSheet, { id }, isWithHealth ? { health: '1' } : {}),
  offer: (id: string) => call(R.offer, { params: { id } }),
  changeOffer: (id: string, body: OfferInput, version: number) =>
    call(R.changeOffer, { params: { id }, body, version }),
  changePrices: (body: PricesInput) => call(R.changePrices, { body }),
  persons: () => callAll(R.persons),
  addPerson: (body: PersonInput) => call(R.addPerson, { body }),
  changePerson: (id: string, body: PersonInput, version: number) =>
    call(R.changePerson, { params: { id }, body, version }),
  personExportUrl: (id: string) => urlOf(R.exportPerson, { id }),
  erasePerson: (id: string) => call(R.erasePerson, { params: { id } }),
  previewTakeIn: (file: Blob) => call(R.previewTakeIn, { file, type: PACKAGE }),
  takeIn: (file: Blob, as: 'own' | 'outside', trust: Trust) =>
    call(R.takeIn, { file, type: PACKAGE, query: { as, trust } }),
  taken: () => callAll(R.taken),
  removeTaken: (id: string) => call(R.removeTaken, { params: { id } }),
  breeders: () => callAll(R.breeders),
  changeBreeder: (id: string, body: BreederInput, version: number) =>
    call(R.changeBreeder, { params: { id }, body, version }),
  handOver: (id: string) => call(R.handOver, { params: { id } }),
  post: () => call(R.post, {}),
  letters: () => callAll(R.letters),
  sendLetters: (body: LettersInput) => call(R.sendLetters, { body }),
  discardLetter: (id: string) => call(R.discardLetter, { params: { id } }),
  receivedLetter: (id: string) => call(R.receivedLetter, { params: { id } }),
  wishes: () => callAll(R.wishes),
  addWish: (body: WishInput) => call(R.addWish, { body }),
  changeWish: (id: string, body: WishInput, version: number) =>
    call(R.changeWish, { params: { id }, body, version }),
  closeWish: (id: string) => call(R.closeWish, { params: { id } }),
  pairingWaits: () => callAll(R.pairingWaits),
  animalWaits: (id: string) => callAll(R.animalWaits, { id }),
  offerToFirst: (body: WaitingOffer) => call(R.offerToFirst, { body }),
  answerOffer: (id: string, body: WishAnswerInput) => call(R.answerOffer, { params: { id }, body }),
  inquiries: () => callAll(R.inquiries),
  answerInquiry: (id: string) => call(R.answerInquiry, { params: { id } }),
  deleteInquiry: (id: string) => call(R.deleteInquiry, { params: { id } }),

  showcase: () => callAll(R.showcase),
  publish: (id: string) => call(R.publish, { params: { id }, body: {} }),
  amendment: (id: string) => call(R.amendment, { params: { id } }),
  withholdAmendment: (id: string, reason: string) =>
    call(R.withholdAmendment, { params: { id }, body: { reason } }),
  signingKeys: () => callAll(R.signingKeys),
  succeedKey: () => call(R.succeedKey, {}),
  restoreKey: (body: RestoreInput) => call(R.restoreKey, { body }),
  backUpKey: (password: string) => call(R.backUpKey, { body: { password } }),
  issueStatement: (id: string) => call(R.issueStatement, { params: { id } }),
  statementPackageUrl: (id: string) => urlOf(R.statementPackage, { id }),
  withdraw: (id: string) => call(R.withdraw, { params: { id } }),
  publishedStatementUrl: (slug: string, statement: number) =>
    urlOf(R.publishedStatement, { slug, statement: String(statement) }),
};
