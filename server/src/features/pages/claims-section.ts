import type { PublicAnimal, PublicKin } from '@karyotome/contract';
import { CLAIM_RULES, EYE_WORDS, oddsWords, strengtheningWords, type Reader } from '@karyotome/words';
import { h, type VNode } from 'vue';

const A_RELATIVE = 'a relative';

/** Each claim with what it rests on, how sure, and what would make it surer. */
export function claimsSection({ claims, cautions, asOf }: PublicAnimal, reader: Reader): VNode {
  return h('section', [
    h('h2', 'What it is and carries, and what that rests on'),
    h(
      'p',
      { class: 'small soft' },
      `As signed, as of ${reader.day(asOf)}. When the evidence changes what is claimed, a new statement says so below.`,
    ),
    ...claims.map((claim) =>
      h('div', { class: 'claim' }, [
        h('div', { class: 'head' }, [
          h('strong', claim.label),
          h(
            'span',
            { class: 'small' },
            claim.certain ? 'certain, as recorded' : `${oddsWords(claim.p)} after all evidence`,
          ),
        ]),
        h('p', { class: 'small' }, CLAIM_RULES[claim.rule]),
        h(
          'ul',
          { class: 'plain small soft' },
          (claim.support ?? []).map(({ animal, on, label, sure, eye }) =>
            h('li', `${animal ?? A_RELATIVE}, ${reader.day(on)}: ${label}, ${sure}, ${EYE_WORDS[eye]}`),
          ),
        ),
        claim.surer
          ? h(
              'p',
              { class: 'small' },
              `Would make it surer: ${strengtheningWords({ kind: claim.surer.kind, number: claim.surer.number ?? A_RELATIVE })}.`,
            )
          : null,
      ]),
    ),
    claims.length === 0 ? h('p', 'No gene but wild type is claimed.') : null,
    ...cautions.map((caution) => h('p', { class: 'caution' }, caution)),
  ]);
}

/** The animal and its visible ancestors, each joined to its parents. */
export function kinSection(animal: PublicAnimal): VNode | null {
  if (animal.lineage.length === 0) return null;
  const node = (title: string, text: string | null, parents: readonly PublicKin[]): VNode =>
    h('div', { class: 'branch' }, [
      h('div', { class: 'node' }, [h('strong', title), text ? h('div', { class: 'soft' }, text) : null]),
      parents.length > 0 ? h('div', { class: 'parents' }, parents.map(kinNode)) : null,
    ]);
  const kinNode = ({ role, number, name, label, p, parents }: PublicKin): VNode => {
    const who = number === null ? `${role}, not named` : [number, name].filter(Boolean).join(' ');
    const candidate = p < 1 - 1e-9 ? ` candidate, ${oddsWords(p)}` : '';
    return node(who, [`${role}${candidate}`, label].filter(Boolean).join(': '), parents);
  };
  return h('section', [
    h('h2', 'Parents and theirs'),
    // A chart that is wider than the screen is scrolled, by keys too.
    h('div', { class: 'kin', tabindex: 0, role: 'group', 'aria-label': 'Kin chart' }, [
      node(animal.number, animal.label, animal.lineage),
    ]),
  ]);
}
