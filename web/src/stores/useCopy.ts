import { useNotices } from './notices.ts';

/** Copies to the clipboard, and says so; where the browser does not allow it, what to do instead. */
export function useCopy() {
  const notices = useNotices();
  return async (
    text: string,
    done: string,
    failed = 'It could not be copied: mark it and copy it by hand',
  ): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      notices.say(done);
    } catch {
      notices.warn(failed);
    }
  };
}
