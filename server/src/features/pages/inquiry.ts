import { randomUUID } from 'node:crypto';
import { inquiryInput, validate, type FieldProblem, type InquiryInput } from '@karyotome/contract';
import { h, type VNode } from 'vue';
import { writing, type Database } from '../../db/work.ts';
import { notifyChanged } from '../../domain/changes/notify.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { ownerAddresses } from '../../domain/post/letters.queries.ts';
import { writeLetter } from '../../domain/post/letters.service.ts';
import { pageFooter, type PageContent } from './document.ts';

export interface InquiryPage {
  readonly collection: string;
  readonly pageName: string;
  readonly origin: string;
  /** The page that it is about; null where it is about none. */
  readonly about: { readonly slug: string; readonly number: string } | null;
  readonly typed: Partial<InquiryInput>;
  readonly problems: readonly FieldProblem[];
  readonly isSent: boolean;
}

/** No person sees this field; what fills it in is a program. */
export const TRAP_FIELD = 'website';

export function inquiryPage({
  collection,
  pageName,
  origin,
  about,
  typed,
  problems,
  isSent,
}: InquiryPage): PageContent {
  const address = `${origin}/c/${pageName}/inquiry`;
  const title = about ? `Ask ${collection} about ${about.number}` : `Ask ${collection}`;
  return {
    title,
    description: `Write to ${collection}. No account is needed.`,
    address,
    isUnlisted: true,
    body: [
      h('header', { class: 'top small' }, [h('a', { href: `/c/${pageName}` }, collection)]),
      h('main', [
        h('h1', title),
        isSent
          ? h(
              'p',
              { role: 'status' },
              `Sent. ${collection} reads it in their inbox and answers to your e-mail address.`,
            )
          : form(pageName, about, typed, problems),
      ]),
      pageFooter(),
    ],
  };
}

function form(
  pageName: string,
  about: InquiryPage['about'],
  typed: Partial<InquiryInput>,
  problems: readonly FieldProblem[],
): VNode {
  const field = (name: 'name' | 'email' | 'text', title: string, control: (more: object) => VNode): VNode => {
    const wrong = problems.find((problem) => problem.field === name);
    const described = wrong ? { 'aria-describedby': `${name}-problem`, 'aria-invalid': 'true' } : {};
    return h('label', [
      title,
      control({ name, required: true, ...described }),
      wrong ? h('span', { class: 'problem', id: `${name}-problem` }, `${title} ${wrong.message}.`) : null,
    ]);
  };
  return h(
    'form',
    { class: 'ask', method: 'post', action: `/c/${pageName}/inquiry${about ? `?animal=${about.slug}` : ''}` },
    [
      field('name', 'Your name', (more) =>
        h('input', { ...more, maxlength: 120, autocomplete: 'name', value: typed.name ?? '' }),
      ),
      field('email', 'Your e-mail', (more) =>
        h('input', {
          ...more,
          type: 'email',
          maxlength: 200,
          autocomplete: 'email',
          value: typed.email ?? '',
        }),
      ),
      field('text', 'What would you like to know?', (more) =>
        h('textarea', { ...more, rows: 6, maxlength: 4000 }, typed.text ?? ''),
      ),
      h('div', { class: 'trap', 'aria-hidden': 'true' }, [
        h('label', ['Leave this empty', h('input', { name: TRAP_FIELD, tabindex: -1, autocomplete: 'off' })]),
      ]),
      h(
        'p',
        { class: 'small soft' },
        'Name, address and question are kept by the breeder to answer you, and erased when you ask.',
      ),
      h('div', [h('button', { type: 'submit' }, 'Send')]),
    ],
  );
}

/** What was typed into the form, if it holds. */
export function readInquiry(
  body: unknown,
): { input: InquiryInput } | { problems: readonly FieldProblem[]; typed: Partial<InquiryInput> } {
  const fields = (typeof body === 'object' && body !== null ? body : {}) as Record<string, unknown>;
  const text = (name: string): string => (typeof fields[name] === 'string' ? fields[name] : '');
  const typed = { name: text('name'), email: text('email').trim(), text: text('text') };
  const filled = Object.fromEntries(Object.entries(typed).filter(([, value]) => value !== ''));
  const result = validate(inquiryInput, filled);
  return result.ok ? { input: result.value } : { problems: result.problems, typed };
}

/** Puts a question into the collection's inbox. */
export async function keepInquiry(
  database: Database,
  collectionId: string,
  animalId: string | null,
  { name, email, text }: InquiryInput,
): Promise<void> {
  await writing(database, { collectionId }, async (work) => {
    const { transaction, models } = work;
    const id = randomUUID();
    await models.inquiries.create(
      { collectionId, id, animalId, name, email, text, answeredAt: null, version: 1 },
      { transaction },
    );
    const collection = await collectionOf(work);
    const animal =
      animalId === null
        ? null
        : await models.animals.findOne({ where: { collectionId, id: animalId }, transaction });
    const facts = {
      collection: collection.name,
      name,
      email,
      text,
      number: animal?.get().number ?? null,
    };
    for (const { email: to } of await ownerAddresses(work))
      await writeLetter(work, {
        letter: { code: 'question-asked', facts },
        to,
        sentKey: `question-asked ${id} ${to}`,
        state: 'waiting',
      });
  });
  notifyChanged(collectionId, { tags: ['inquiries', 'letters'], page: null });
}
