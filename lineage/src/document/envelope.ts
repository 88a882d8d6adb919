import Joi from 'joi';
import { didKey, moment, object, urn } from './fields.ts';

/*
 * What statements and key successions have in common: a W3C Verifiable Credential (Data Model 2.0), whose terms beyond that
 * model are this vocabulary's own.
 */

export const CONTEXT = [
  'https://www.w3.org/ns/credentials/v2',
  { '@vocab': 'urn:karyotome:lineage:1#' },
] as const;

export interface Envelope<Subject> {
  readonly '@context': typeof CONTEXT;
  /** `urn:uuid:` of the document */
  readonly id: string;
  readonly type: readonly string[];
  readonly issuer: { readonly id: string; readonly name: string };
  /** RFC 3339 */
  readonly validFrom: string;
  readonly credentialSubject: Subject;
}

/** Its proof is looked at by `signatureFault`, and may be anything until then. */
export type Signed<Document> = Document & { readonly proof?: object };

/** @param types - those that its list must hold besides VerifiableCredential */
export const envelope = <Subject>(
  subject: Joi.Schema<Subject>,
  ...types: readonly string[]
): Joi.ObjectSchema<Signed<Envelope<Subject>>> =>
  object<Signed<Envelope<Subject>>>({
    '@context': Joi.array()
      .ordered(
        Joi.valid(CONTEXT[0]).required(),
        Joi.object({ '@vocab': Joi.valid(CONTEXT[1]['@vocab']) }).required(),
      )
      .items(Joi.any()),
    id: urn(),
    type: Joi.array().items(
      ...['VerifiableCredential', ...types].map((type) => Joi.valid(type).required()),
      Joi.string(),
    ),
    issuer: object({ id: didKey(), name: Joi.string() }),
    validFrom: moment(),
    credentialSubject: subject,
    proof: object({}).optional(),
  });
