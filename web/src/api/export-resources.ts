import { ROUTES as R } from '@karyotome/contract';
import { call, urlOf } from './call.ts';

/** Addresses of what is downloaded as a file, and taking such a file in. */
export const exportApi = {
  importAll: (file: File) => call(R.importAll, { file, type: 'application/zip' }),
  exportWeightsUrl: () => urlOf(R.exportWeights, {}),
  exportMealsUrl: () => urlOf(R.exportMeals, {}),
  exportPedigreeUrl: () => urlOf(R.exportPedigree, {}),
  exportPlinkUrl: () => urlOf(R.exportPlink, {}),
  animalsTableUrl: (query: Readonly<Record<string, string>>) =>
    urlOf(R.animals, {}, { ...query, format: 'csv' }),
  personsTableUrl: () => urlOf(R.persons, {}, { format: 'csv' }),
  wishesTableUrl: () => urlOf(R.wishes, {}, { format: 'csv' }),
};
