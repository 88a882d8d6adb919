import Joi from 'joi';
import { id, noTwo } from './fields.ts';

/**
 * What became of a letter. `unknown`: the server ended while it was being sent, so it may have gone out or not: a person
 * decides.
 */
export const LETTER_STATES = [
  'draft',
  'waiting',
  'sending',
  'sent',
  'failed',
  'unknown',
  'discarded',
] as const;
export type LetterState = (typeof LETTER_STATES)[number];

/** What may be sent, again or for the first time. */
export const SENDABLE: readonly LetterState[] = ['draft', 'failed', 'unknown'];
/** What may be discarded: what is not on its way yet. */
export const DISCARDABLE: readonly LetterState[] = [...SENDABLE, 'waiting'];

export interface LettersInput {
  ids: string[];
}
export const lettersInput = Joi.object<LettersInput, true>({
  ids: Joi.array().items(id().required()).min(1).max(200).custom(noTwo()).required(),
});

export interface LetterView {
  id: string;
  kind: string;
  person: { id: string; name: string | null } | null;
  animal: { id: string; number: string } | null;
  to: string | null;
  subject: string;
  paragraphs: string[];
  state: LetterState;
  stateAt: string;
  attempts: number;
  /** What the other side answered, where it was not taken. */
  error: string | null;
}

export interface PostView {
  /** No mail server is configured: letters go to a simulated post office, and are read here. */
  isSimulated: boolean;
}

/** A letter as it arrived, read from the message itself. */
export interface ReceivedLetterView {
  from: string;
  to: string;
  subject: string;
  text: string;
  html: string;
  receivedAt: string;
}
