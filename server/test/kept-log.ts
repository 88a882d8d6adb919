import type { Sequelize } from 'sequelize';

/*
 * The log of an application under test, searched when it is closed: so that every test of the server is also a test of what the
 * log may hold.
 */

/** What never stands in a log, whoever wrote it. */
const FORBIDDEN: Readonly<Record<string, RegExp>> = {
  'an e-mail address': /[\w.+-]+@[\w-]+\.[a-z]{2,}/i,
  // Codes of invitations, programs, calendars and passwords, session ids and tokens against forged requests.
  'a secret': /(?<![\w/-])[\w-]{43,}(?![\w/-])/,
  'a session': /karyotome=|s%3A/,
  SQL: /\b(?:select\b.+\bfrom|insert into|update\b.+\bset|delete from)\b/i,
};

/** What people typed: where it is kept, and its least length, below which a word may stand in a log by chance. */
const TYPED = `
  select note as text from records where note is not null
  union select body ->> 'text' from records where kind = 'note'
  union select note from animals where note is not null
  union select name from persons union select phone from persons union select note from persons
  union select text from inquiries
  union select email from accounts`;
const LEAST_LENGTH = 6;

export class KeptLog {
  readonly lines: string[] = [];
  /** Words that a test puts into addresses too, which a log holds: those it may hold. */
  readonly addressed = new Set<string>();

  /** For pino. */
  write(line: string): void {
    this.lines.push(line);
  }

  /** @returns what stands in it though it must not: none where all is well */
  async leaks(sequelize: Sequelize): Promise<string[]> {
    const found: string[] = [];
    for (const line of this.lines)
      for (const [what, pattern] of Object.entries(FORBIDDEN))
        if (pattern.test(line)) found.push(`${what}: ${line}`);
    const [rows] = (await sequelize.query(TYPED)) as [{ text: string | null }[], unknown];
    const all = this.lines.join('\n');
    for (const { text } of rows)
      if (text && text.length >= LEAST_LENGTH && !this.addressed.has(text) && all.includes(text))
        found.push(`what was typed: ${text}`);
    return found;
  }
}
