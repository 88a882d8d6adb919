export * from './pace.ts';
export * from './readiness.ts';
export * from './status-event.ts';
export * from './wish.ts';
