import { ROUTES as R } from '@karyotome/contract';
import { urlOf } from './call.ts';

/** Addresses of what is downloaded as a file. */
export const exportApi = {
  exportWeightsUrl: () => urlOf(R.exportWeights, {}),
  exportMealsUrl: () => urlOf(R.exportMeals, {}),
  exportPedigreeUrl: () => urlOf(R.exportPedigree, {}),
  exportPlinkUrl: () => urlOf(R.exportPlink, {}),
  animalsTableUrl: (query: Readonly<Record<string, string>>) =>
    urlOf(R.animals, {}, { ...query, format: 'csv' }),
  personsTableUrl: () => urlOf(R.persons, {}, { format: 'csv' }),
  wishesTableUrl: () => urlOf(R.wishes, {}, { format: 'csv' }),
};
