import { ROUTES as R } from '@karyotome/contract';
import { call, urlOf } from './call.ts';

/** Lists that are downloaded as tables. */
export type ListName =
  | 'animals'
  | 'bin'
  | 'contradictions'
  | 'devices'
  | 'feedingNight'
  | 'hatchRates'
  | 'incubators'
  | 'inquiries'
  | 'ladders'
  | 'letters'
  | 'members'
  | 'pairings'
  | 'projects'
  | 'persons'
  | 'rooms'
  | 'seasonFemales'
  | 'seasonMales'
  | 'showcase'
  | 'tokens'
  | 'tubs'
  | 'webhooks'
  | 'wishes';

/** Addresses of what is downloaded as a file, and taking such a file in. */
export const exportApi = {
  importAll: (file: File) => call(R.importAll, { file, type: 'application/zip' }),
  exportWeightsUrl: () => urlOf(R.exportWeights, {}),
  exportMealsUrl: () => urlOf(R.exportMeals, {}),
  exportReadingsUrl: () => urlOf(R.exportReadings, {}),
  exportPedigreeUrl: () => urlOf(R.exportPedigree, {}),
  exportPlinkUrl: () => urlOf(R.exportPlink, {}),
  listTableUrl: (list: ListName, query: Readonly<Record<string, string>>) =>
    urlOf(R[list], {}, { ...query, format: 'csv' }),
};
