import { DEFAULT_LOCALE } from '@karyotome/words';
import type { Request } from 'express';

/** The locale that a browser asks for first (RFC 9110, 12.5.4), as far as numbers and dates are known for it. */
export function localeOf(request: Request): string {
  const [wanted] = request.acceptsLanguages();
  if (wanted === undefined || wanted === '*') return DEFAULT_LOCALE;
  try {
    return Intl.DateTimeFormat.supportedLocalesOf(wanted)[0] ?? DEFAULT_LOCALE;
  } catch {
    // No language tag at all.
    return DEFAULT_LOCALE;
  }
}
