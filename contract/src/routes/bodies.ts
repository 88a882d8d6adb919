import { animalListInput } from '../animal-filter.ts';
import type Joi from 'joi';
import { animalChange, newAnimal } from '../animal-requests.ts';
import { deletion } from '../bin.ts';
import * as bench from '../bench-requests.ts';
import { hatching, newClutch, newPairing } from '../breeding-requests.ts';
import { catalogueEntry, catalogueUpdate } from '../catalogue-requests.ts';
import { newLadder, newRack, newRacks, rackOrder } from '../enclosure-requests.ts';
import * as husbandry from '../husbandry-requests.ts';
import { importPlan, importRun } from '../import-requests.ts';
import * as climate from '../climate-requests.ts';
import * as incubation from '../incubation-requests.ts';
import { lettersInput } from '../post.ts';
import { newProject, plannedPairingInput, projectAnimalInput, projectChange } from '../project-requests.ts';
import { pictureEdit } from '../picture-requests.ts';
import { backupInput, publishing, restoreInput, withholdInput } from '../publication-requests.ts';
import { correction, newRecord, voiding } from '../records.ts';
import {
  newStatusEvents,
  offerInput,
  personInput,
  pricesInput,
  saleRules,
  statusCorrection,
} from '../sale-requests.ts';
import * as season from '../season-requests.ts';
import {
  collectionChoice,
  collectionSettings,
  invitationInput,
  firstStart,
  invitationToken,
  joining,
  memberChange,
  passwordChange,
  passwordReset,
  factorCodeInput,
  forgottenPassword,
  newPasskey,
  passkeyAnswer,
  passwordGiven,
  signIn,
  tokenInput,
} from '../session-requests.ts';
import { breederInput } from '../taken-requests.ts';
import { webhookInput } from '../webhook-requests.ts';
import { waitingOffer, wishAnswer, wishInput } from '../waiting.ts';
import { ROUTES } from './index.ts';
import type { BodyOf, Route } from './route.ts';

type Name = keyof typeof ROUTES;
type WithBody = {
  [N in Name]: [BodyOf<(typeof ROUTES)[N]>] extends [undefined] ? never : N;
}[Name];

/*
 * The schemas that bodies are checked by, apart from the addresses: who asks needs those alone, and the program that checks
 * schemas is as large as all of them.
 */
const BODIES: { readonly [N in WithBody]: Joi.Schema<BodyOf<(typeof ROUTES)[N]>> } = {
  deleteAnimal: deletion,
  deleteHeatZone: deletion,
  deletePairing: deletion,
  deleteRack: deletion,
  addWebhook: webhookInput,
  planImport: importPlan,
  runImport: importRun,
  changePassword: passwordChange,
  resetPassword: passwordReset,
  addToken: tokenInput,
  forgotPassword: forgottenPassword,
  beginSecondFactor: passwordGiven,
  confirmSecondFactor: factorCodeInput,
  newRecoveryCodes: passwordGiven,
  removeSecondFactor: passwordGiven,
  passkeyOptions: passwordGiven,
  addPasskey: newPasskey,
  signInWithPasskey: passkeyAnswer,
  chooseCollection: collectionChoice,
  changeMember: memberChange,
  invite: invitationInput,
  startFarm: firstStart,
  lookAtInvitation: invitationToken,
  join: joining,
  addAnimal: newAnimal,
  changeAnimal: animalChange,
  addRecord: newRecord,
  voidRecord: voiding,
  correctRecord: correction,
  voidRecords: husbandry.takenBack,
  changeObservations: bench.observationsChange,
  changeSorting: bench.sortingChange,
  setUp: bench.settingUp,
  addOpinion: bench.newOpinion,
  addOpinionLink: bench.newOpinionLink,
  answerOutside: bench.outsideOpinions,
  previewLabels: bench.labelOrder,
  printLabels: bench.labelOrder,
  changeSeasonRules: season.seasonRules,
  introduce: season.introduction,
  addPairing: newPairing,
  addSeasonEvent: season.newSeasonEvent,
  changeSires: season.siresChange,
  voidSeasonEvent: voiding,
  correctSeasonEvent: season.seasonEventCorrection,
  addClutch: newClutch,
  changeClutch: incubation.clutchChange,
  changeBox: incubation.boxChange,
  addEggEvents: incubation.newEggEvents,
  voidEggEvents: incubation.eggEventsVoiding,
  hatch: hatching,
  addIncubator: climate.newIncubator,
  changeIncubator: climate.newIncubator,
  addReading: climate.newReading,
  addRoom: climate.newRoom,
  changeRoom: climate.newRoom,
  addRoomReading: climate.newReading,
  addRack: newRack,
  addRacks: newRacks,
  orderRacks: rackOrder,
  changeRack: husbandry.rackChange,
  addLadder: newLadder,
  changeLadder: newLadder,
  moveMany: husbandry.manyMoves,
  addHeatZone: husbandry.heatZoneInput,
  changeHeatZone: husbandry.heatZoneInput,
  addSurfaceCheck: husbandry.surfaceCheck,
  voidSurfaceCheck: voiding,
  addCatalogueEntry: catalogueEntry,
  changeCatalogueEntry: catalogueEntry,
  tryCatalogueEntry: catalogueEntry,
  takeCatalogueUpdate: catalogueUpdate,
  sendRound: husbandry.roundEntries,
  changeFeedingRules: husbandry.rulesChange,
  addProject: newProject,
  changeProject: projectChange,
  addProjectAnimal: projectAnimalInput,
  planPairing: plannedPairingInput,
  editPicture: pictureEdit,
  addAnimalList: animalListInput,
  changeAnimalList: animalListInput,
  addFeedingPlan: husbandry.planInput,
  changeFeedingPlan: husbandry.planInput,
  addStock: husbandry.newStockEntry,
  voidStock: voiding,
  changeRoomAssumptions: husbandry.roomAssumptions,
  sendLetters: lettersInput,
  publish: publishing,
  withholdAmendment: withholdInput,
  backUpKey: backupInput,
  restoreKey: restoreInput,
  addCalendarFeed: incubation.newFeed,
  changeSaleRules: saleRules,
  addStatusEvents: newStatusEvents,
  voidStatusEvent: voiding,
  correctStatusEvent: statusCorrection,
  changeOffer: offerInput,
  changePrices: pricesInput,
  addPerson: personInput,
  changePerson: personInput,
  signIn,
  changeSettings: collectionSettings,
  changeBreeder: breederInput,
  addWish: wishInput,
  changeWish: wishInput,
  offerToFirst: waitingOffer,
  answerOffer: wishAnswer,
};

const byRoute = new Map<Route, Joi.Schema>(
  Object.entries(BODIES).map(([name, schema]) => [ROUTES[name as Name] as Route, schema as Joi.Schema]),
);

/** The schema of a route's JSON body; null where it takes none. */
export const bodySchemaOf = (route: Route): Joi.Schema | null => byRoute.get(route) ?? null;
