export * from './fields.ts';
export * from './records.ts';
export * from './requests.ts';
export type * from './responses.ts';
export * from './validate.ts';
