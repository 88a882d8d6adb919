import { h, type VNode } from 'vue';
import { drawCode } from '../../print/code.ts';

/** Free of print around a code, in its squares (ISO/IEC 18004). */
const QUIET = 4;

/** The address of a statement's page as a code, so that what is on paper leads to what was signed. */
export function statementCode(address: string, statement: number): VNode {
  const { path, modules } = drawCode(address);
  const side = modules + 2 * QUIET;
  return h('p', { class: 'code' }, [
    h(
      'svg',
      {
        viewBox: `${-QUIET} ${-QUIET} ${side} ${side}`,
        role: 'img',
        'aria-label': `Code of statement ${statement}`,
      },
      [
        h('rect', { x: -QUIET, y: -QUIET, width: side, height: side, fill: '#fff' }),
        h('path', { d: path, fill: '#000' }),
      ],
    ),
    h('span', { class: 'small soft' }, `Scan it to verify statement ${statement}.`),
  ]);
}
