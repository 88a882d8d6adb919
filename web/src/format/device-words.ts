import Bowser from 'bowser';

/** Browser and system by what a browser calls itself: "Firefox on Android"; null where it tells neither. */
export function deviceWords(userAgent: string | null): string | null {
  if (!userAgent) return null;
  const { browser, os } = Bowser.parse(userAgent);
  return [browser.name, os.name].filter(Boolean).join(' on ') || null;
}
