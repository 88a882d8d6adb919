/* npm run guide: writes the help of every place into docs/guide/places.md. */
import fs from 'node:fs';
import path from 'node:path';
import { guideText } from '../web/src/features/help/guide.ts';
import { ROOT } from './root.mjs';

fs.writeFileSync(path.join(ROOT, 'docs/guide/places.md'), guideText().trimEnd() + '\n');
