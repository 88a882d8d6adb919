import type { TestProject } from 'vitest/node';
import { prepareTemplate } from './template.ts';

declare module 'vitest' {
  interface ProvidedContext {
    serverUrl: string;
    template: string;
  }
}

/** The cluster stays up between runs: the next one starts at once. */
export default async function setup(project: TestProject): Promise<void> {
  const { serverUrl, template } = await prepareTemplate();
  project.provide('serverUrl', serverUrl);
  project.provide('template', template);
}
