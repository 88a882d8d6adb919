import { PosteriorView, type Catalogue, type CatalogueChange, type RecordedAnimal } from '@karyotome/core';
import type { Transaction } from 'sequelize';
import { createCollectionCache } from '../../cache.ts';
import { geneticsTouched, type Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { catalogueFor, entryInputs } from '../catalogue/catalogue.service.ts';
import { notifyChanged } from '../changes/notify.ts';
import { within } from '../../within.ts';
import { askEngine, inLine, stillWorking } from './engine-client.ts';
import type { Answers, Question } from './engine-questions.ts';
import { geneticsRevision, pedigreeRows } from './genetics.queries.ts';
import { toRecorded } from './to-recorded.ts';

/** Everything inferred about one collection as of one revision of its genetic records. */
export interface Genetics {
  readonly revision: string;
  /** Nothing is inferred yet: only what was recorded stands here. */
  readonly isPending: boolean;
  readonly catalogue: Catalogue;
  readonly posterior: PosteriorView;
  readonly recorded: ReadonlyMap<string, RecordedAnimal>;
  readonly labels: Map<string, string>;
  /** Asks the engine about this very snapshot, each question once: its answers do not change. */
  readonly ask: <Q extends Asked>(question: Q) => Promise<Answers[Q['ask']]>;
}

type WithoutSnapshot<Q> = Q extends unknown ? Omit<Q, 'collection' | 'token' | 'snapshot'> : never;

type Asked = WithoutSnapshot<Exclude<Question, { ask: 'update' }>>;

/**
 * What was inferred of a collection at a revision of its genetic records. Finished or under way: whoever asks for the same
 * revision meanwhile shares the work.
 */
const inferred = createCollectionCache<{ revision: string; genetics: Promise<Genetics> }>();

/** What was waited for can be read now. */
const INFERRED = { tags: ['records'], page: null } as const;

/** Numbers the snapshots of this process, so that the engine's thread can tell one from another. */
let snapshots = 0;

/** How long somebody waits who asks for what is inferred. */
const PATIENCE_MS = 25_000;

/**
 * The inferred state of the actor's collection, computed at most once per revision.
 *
 * @throws Refusal `busy` where it takes too long to wait for
 */
export async function geneticsOf(work: Work): Promise<Genetics> {
  const { genetics } = await startInference(work);
  const ready = await within(PATIENCE_MS, genetics);
  if (ready) return ready;
  throw stillWorking();
}

const answeredSoon = new WeakMap<Transaction, Promise<Genetics>>();

/**
 * The same for daily work, which never waits for inference: where it is not there yet, what was recorded stands in for it, and
 * whoever watches the collection is told when it is there.
 */
export function geneticsSoon(work: Work): Promise<Genetics> {
  // What this very transaction changes, it sees at once.
  if (geneticsTouched(work)) return soonOrAsRecorded(work);
  const known = answeredSoon.get(work.transaction);
  if (known) return known;
  const soon = soonOrAsRecorded(work);
  answeredSoon.set(work.transaction, soon);
  return soon;
}

async function soonOrAsRecorded(work: Work): Promise<Genetics> {
  const { genetics, asRecorded } = await startInference(work);
  let isStandIn = false;
  genetics.then(
    () => isStandIn && notifyChanged(work.actor.collectionId, INFERRED),
    (error: unknown) => isStandIn && !(error instanceof Refusal) && work.onFault(error),
  );
  const ready = await within(
    work.inferencePatienceMs,
    genetics.catch(() => null),
  );
  if (ready) return ready;
  isStandIn = true;
  return asRecorded();
}

interface Started {
  readonly genetics: Promise<Genetics>;
  /** What can be said without inference. */
  readonly asRecorded: () => Promise<Genetics>;
}

async function startInference(work: Work): Promise<Started> {
  const { collectionId } = work.actor;
  const [row] = await geneticsRevision(work);
  const revision = row!.revision;
  // A revision that this very transaction made may yet be rolled back, and its number be given again.
  const isOwn = geneticsTouched(work);
  const known = inferred.get(collectionId);
  if (known?.revision === revision && !isOwn)
    return { genetics: known.genetics, asRecorded: async () => asRecorded(await inputsOf(work), revision) };
  const inputs = await inputsOf(work);
  // Somebody who read the same revision may have begun meanwhile.
  const begun = inferred.get(collectionId);
  const genetics =
    begun?.revision === revision && !isOwn ? begun.genetics : infer(collectionId, inputs, revision);
  if (!isOwn && begun?.genetics !== genetics && !isNewer(begun, revision)) {
    inferred.set(collectionId, { revision, genetics });
    genetics.catch(() => {
      if (inferred.get(collectionId)?.genetics === genetics) inferred.delete(collectionId);
    });
  }
  return { genetics, asRecorded: () => Promise.resolve(asRecorded(inputs, revision)) };
}

/** A reader of an earlier moment does not put its own in the place of what came later. */
function isNewer(known: { revision: string } | undefined, revision: string): boolean {
  return known !== undefined && BigInt(known.revision) > BigInt(revision);
}

interface Inputs {
  readonly entries: readonly CatalogueChange[];
  readonly animals: readonly RecordedAnimal[];
}

async function inputsOf(work: Work): Promise<Inputs> {
  const entries = await entryInputs(work);
  return { entries, animals: (await pedigreeRows(work)).map(toRecorded) };
}

async function infer(collection: string, { entries, animals }: Inputs, revision: string): Promise<Genetics> {
  const token = ++snapshots;
  // Tells weigh what is seen on one animal; what is inferred from records does not turn on them.
  const inferred = entries.filter(({ kind }) => kind !== 'marker');
  const snapshot = { collection, token, entries: inferred, animals };
  const compact = await inLine(collection, () => askEngine({ ask: 'update', snapshot }));
  return {
    revision,
    isPending: false,
    catalogue: catalogueFor(entries),
    posterior: new PosteriorView(compact!),
    recorded: new Map(animals.map((animal) => [animal.id, animal])),
    labels: new Map(),
    ask: askedOnce(async (question) => {
      const about = { ...question, collection, token } as unknown as Question;
      // The thread may have moved on to another snapshot: then it takes this one's records along with the question.
      const answer = await within(
        PATIENCE_MS,
        askEngine(about).then((known) => known ?? askEngine({ ...about, snapshot } as Question)),
      );
      if (answer === null) throw stillWorking();
      return answer as never;
    }),
  };
}

const NOTHING_INFERRED = { exact: true, ids: [], loci: [], sires: [], female: [], conflicts: [] };

function asRecorded({ entries, animals }: Inputs, revision: string): Genetics {
  return {
    revision,
    isPending: true,
    catalogue: catalogueFor(entries),
    posterior: new PosteriorView(NOTHING_INFERRED),
    recorded: new Map(animals.map((animal) => [animal.id, animal])),
    labels: new Map(),
    ask: () => {
      throw stillWorking();
    },
  };
}

/** An answer of the engine that daily work shows where it is there in time; null where it is not. */
export async function askSoon<Q extends Asked>(
  work: Work,
  genetics: Genetics,
  question: Q,
): Promise<Answers[Q['ask']] | null> {
  return genetics.isPending ? null : soonOr(work, genetics.ask(question));
}

/** What is there in time, else null; then whoever watches the collection is told when it is. */
export async function soonOr<T>(work: Work, promise: Promise<T>): Promise<T | null> {
  const ready = await within(work.inferencePatienceMs * 4, promise);
  if (ready === null)
    promise.then(
      () => notifyChanged(work.actor.collectionId, INFERRED),
      (error: unknown) => work.onFault(error),
    );
  return ready;
}

/** Remembers answers by their questions; one that failed is asked again. */
function askedOnce(ask: Genetics['ask']): Genetics['ask'] {
  const answers = new Map<string, Promise<unknown>>();
  return (question) => {
    const key = JSON.stringify(question);
    let answer = answers.get(key);
    if (!answer) {
      answer = ask(question);
      answers.set(key, answer);
      answer.catch(() => answers.delete(key));
    }
    return answer as never;
  };
}
