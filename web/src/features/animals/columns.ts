/** The server has sorted them. */
const asSorted = (): number => 0;

/** Columns of the list of animals; the first always shows. */
export const COLUMNS = [
  { title: 'Number', key: 'number', sort: asSorted },
  { title: 'Sex', key: 'sex', sort: asSorted },
  { title: 'Genes', key: 'label', sort: asSorted },
  { title: 'Age', key: 'hatchedOn', sort: asSorted },
  { title: 'Weight', key: 'massG', align: 'end' as const, sort: asSorted },
  { title: 'Weighed', key: 'weighedOn', sort: asSorted },
  { title: 'Tub', key: 'tub', sort: asSorted, value: ({ rack }: { rack: string }) => rack },
  { title: 'Status', key: 'status', sort: asSorted },
];

/** What fits on a phone. */
export const ON_A_PHONE: readonly string[] = ['number', 'label', 'massG'];
