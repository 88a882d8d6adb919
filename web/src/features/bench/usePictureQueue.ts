import { computed, onScopeDispose, ref } from 'vue';
import { ProblemError } from '../../api/client.ts';
import { useStaleReads } from '../../stores/useStaleReads.ts';
import { api } from '../../api/resources.ts';

export interface QueuedPicture {
  readonly file: File;
  readonly url: string;
  /** An animal's id, the card of the clutch, or nobody yet. */
  to: string | null;
  state: 'waiting' | 'sending' | 'done' | 'failed';
  reason: string | null;
  /** As the server keeps it. */
  id: string | null;
}
export const CARD = 'card';
/** So many at once: as many as the server has hands for. */
const AT_ONCE = 2;
const TYPES = /^image\/(jpeg|png|webp)$/;
/** The server takes no more; said here, so that nobody waits for the answer. */
const MOST_BYTES = 25 * 1024 * 1024;

/** Pictures on their way: chosen, put to their animals, and sent two at a time; what fails stays to be tried again. */
export function usePictureQueue(
  clutchId: string,
  animals: () => readonly { readonly id: string; readonly number: string }[],
) {
  const queue = ref<QueuedPicture[]>([]);
  const isSending = ref(false);
  let isStopped = false;
  const stale = useStaleReads();
  const done = computed(() => queue.value.filter(({ state }) => state === 'done').length);

  /** A file that carries a number in its name goes to that animal. */
  function guess(name: string): string | null {
    const plain = name.toLowerCase();
    const found = animals()
      .filter(({ number }) => plain.includes(number.toLowerCase()))
      .toSorted((a, b) => b.number.length - a.number.length)[0];
    if (found) return found.id;
    return /card|cover/.test(plain) ? CARD : null;
  }

  function take(files: Iterable<File>, to: string | null): void {
    for (const file of files) {
      const reason = !TYPES.test(file.type)
        ? 'must be a JPEG, PNG or WebP picture'
        : file.size > MOST_BYTES
          ? 'is larger than 25 MB'
          : null;
      queue.value.push({
        file,
        url: reason ? '' : URL.createObjectURL(file),
        to: to ?? guess(file.name),
        state: reason ? 'failed' : 'waiting',
        reason,
        id: null,
      });
    }
  }

  async function send(): Promise<void> {
    isSending.value = true;
    isStopped = false;
    const hand = async (): Promise<void> => {
      for (;;) {
        const next = queue.value.find(({ state, to }) => state === 'waiting' && to !== null);
        if (!next || isStopped) return;
        await sendOne(next);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, hand));
    isSending.value = false;
    await stale.readOwnAnew();
  }

  async function sendOne(picture: QueuedPicture): Promise<void> {
    picture.state = 'sending';
    try {
      const made =
        picture.to === CARD
          ? await api.addCardPicture(clutchId, picture.file)
          : await api.addPicture(picture.to!, picture.file, '');
      picture.id = made.id;
      picture.state = 'done';
      picture.reason = null;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      picture.state = 'failed';
      picture.reason = error.errors[0]?.message ?? error.message;
    }
  }

  /** What is on its way arrives; the rest waits. */
  const stop = (): void => void (isStopped = true);
  function again(picture: QueuedPicture): void {
    picture.state = 'waiting';
    picture.reason = null;
  }
  function drop(picture: QueuedPicture): void {
    URL.revokeObjectURL(picture.url);
    queue.value = queue.value.filter((one) => one !== picture);
  }
  onScopeDispose(() => queue.value.forEach(({ url }) => URL.revokeObjectURL(url)));
  return { queue, isSending, done, take, send, stop, again, drop };
}
