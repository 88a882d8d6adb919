export * from './fields.ts';
export * from './records.ts';
export * from './incubation-requests.ts';
export * from './requests.ts';
export type * from './incubation-responses.ts';
export type * from './responses.ts';
export * from './season-requests.ts';
export type * from './season-responses.ts';
export * from './validate.ts';
