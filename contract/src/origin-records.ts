import Joi from 'joi';
import { currency, day, optional, price, text } from './fields.ts';

/** How an animal came into the collection. */
export const ACQUISITIONS = ['bought', 'traded', 'given'] as const;
export type Acquisition = (typeof ACQUISITIONS)[number];

/** What the dated records of where an animal comes from, and of breeding loans, hold. */
export interface OriginBodies {
  acquisition: {
    from: string;
    how: Acquisition;
    price?: number | null;
    currency?: string | null;
    /** Receipts, permits, lineage: what came with it, and where it is kept. */
    papers?: string | null;
  };
  /** `out`: it lives with somebody else; `in`: somebody else's lives here. */
  loan: { direction: 'in' | 'out'; partner: string; until: string | null; terms?: string | null };
  'loan-end': { remark?: string | null };
}

export const originBodies: { [K in keyof OriginBodies]: Joi.ObjectSchema<OriginBodies[K]> } = {
  acquisition: Joi.object<OriginBodies['acquisition'], true>({
    from: text(120).min(1).required(),
    how: Joi.string()
      .valid(...ACQUISITIONS)
      .required(),
    price: optional(price()),
    currency: optional(currency()),
    papers: optional(text(1000).allow('')),
  }),
  loan: Joi.object<OriginBodies['loan'], true>({
    direction: Joi.string().valid('in', 'out').required(),
    partner: text(120).min(1).required(),
    until: day().allow(null).required(),
    terms: optional(text(1000).allow('')),
  }),
  'loan-end': Joi.object<OriginBodies['loan-end'], true>({ remark: optional(text(300).allow('')) }),
};
