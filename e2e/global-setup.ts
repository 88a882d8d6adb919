import { build } from '../scripts/build.mjs';
import { prepareTemplate } from '../server/test/template.ts';

/** The built application and a migrated database to copy: every spec gets a copy of its own. */
export default async function setup(): Promise<void> {
  await build();
  const { serverUrl, template } = await prepareTemplate();
  process.env['E2E_SERVER_URL'] = serverUrl;
  process.env['E2E_TEMPLATE'] = template;
}
