import { build } from '../../../scripts/build.mjs';

/** The long suites try the server as it is built and run. */
export default async function setup(): Promise<void> {
  await build();
}
