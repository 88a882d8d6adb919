import { verifyFile, type Verification, type VerificationList } from '@karyotome/lineage';
import { DEFAULT_LOCALE, Reader, tellProblem } from '@karyotome/words';
import { fileArgument, usageErrorOf, type CommandResult, type ReadFile } from './arguments.ts';

const reader = new Reader({ locale: DEFAULT_LOCALE, massUnit: 'g', temperatureUnit: 'C' });

/** Verifies a lineage document or a hand-over package; no network is needed. */
export async function verify(args: readonly string[], read: ReadFile): Promise<CommandResult> {
  const { bytes, isJson } = fileArgument(args, read);
  const answer = await verifyFile(bytes).catch((error: unknown) => {
    throw usageErrorOf(error);
  });
  return { output: isJson ? JSON.stringify(answer) : toTable(answer), code: answer.valid ? 0 : 1 };
}

function toTable(answer: Verification | VerificationList): string {
  if (answer.format === 'karyotome-verification/1') return toLines(answer).join('\n');
  const documents = answer.documents.map((document) => toLines(document).join('\n'));
  const problems = answer.problems.map((problem) => tellProblem(problem, reader));
  return [...documents, ...problems].join('\n\n');
}

function toLines({ valid, issuer, signature, subject, claims, files, problems }: Verification): string[] {
  const { number, statement, asOf } = subject;
  return [
    `${number}, statement ${statement} as of ${reader.day(asOf)}: ${valid ? 'valid' : 'NOT VALID'}`,
    `Issued by ${issuer.name} (${issuer.id}), signature ${signature}.`,
    ...claims.map(({ words, p, follows }) => {
      const percent = reader.percent(p, 2).padStart(8);
      return `${percent}  ${words}: ${follows ? 'follows' : 'DOES NOT FOLLOW'}`;
    }),
    ...files.map(({ file, intact }) => `${file}: ${intact ? 'intact' : 'NOT INTACT'}`),
    ...problems.map((problem) => tellProblem(problem, reader)),
    ...(signature === 'valid' ? [PROVES] : []),
  ];
}

const PROVES =
  'A valid signature proves that the holder of this key stated it, and when; not that the animals were looked at rightly.';
