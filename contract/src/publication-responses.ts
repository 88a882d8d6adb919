import type { ClaimKind, PreyState, Strengthening, Sureness } from '@karyotome/core';
import type { AnimalSummary, PictureView } from './animal-summary.ts';
import type { ClaimRule } from './genetics-responses.ts';
import type { Eye } from './record-responses.ts';
import type { RecordBodies } from './records.ts';
import type { CollectionSettings } from './session-requests.ts';
import type { Sex, Status } from './animal-status.ts';

/** What a buyer sees, and the JSON download: no private notes, no places, no other people's names. */
export interface PublicAnimal {
  format: 'karyotome-public-animal/1';
  collection: string;
  /** In which the collection tells its measures; the figures here are grams all the same. */
  units: Pick<CollectionSettings, 'massUnit' | 'temperatureUnit'>;
  number: string;
  name: string | null;
  label: string;
  sex: Sex;
  sexing: { method: RecordBodies['sex']['method']; sure: Sureness } | null;
  hatchedOn: string | null;
  text: string | null;
  status: Status;
  /** Null where none is told. */
  price: number | null;
  /** ISO 4217. */
  currency: string;
  asOf: string;
  publishedAt: string;
  weights: { on: string; massG: number }[];
  feedings: { on: string; species: string; size: string; state: PreyState; taken: boolean }[];
  sheds: { on: string; complete: boolean | null }[];
  lineage: PublicKin[];
  claims: {
    label: string;
    kind: ClaimKind;
    p: number;
    certain: boolean;
    rule: ClaimRule;
    /** By whom is left out: people's names are not published. `animal`: null for one that the breeder hides. */
    support: { animal: string | null; on: string; label: string; sure: Sureness; eye: Eye }[] | null;
    /** What would make it surer; null where nothing is known to, or it is certain. */
    surer: { kind: Strengthening['kind']; number: string | null } | null;
  }[];
  cautions: string[];
  pictures: PictureView[];
  /** Signed statements of this animal, the newest first. */
  statements: StatementLine[];
}

/** A signed statement: its number, its day, and what it says otherwise than the one before, as it was signed. */
export interface StatementLine {
  statement: number;
  asOf: string;
  /** The `did:key` that signed it. */
  key: string;
  changes: { from: string; to: string; on: string; because: string }[];
}

/** What is claimed otherwise by now, at one locus: labels, null where nothing is claimed. */
export interface ClaimChangeView {
  locus: string;
  from: string | null;
  to: string | null;
}

export interface PublicKin {
  role: 'dam' | 'sire';
  /** Null, like name and label, for one that the breeder hides. */
  number: string | null;
  name: string | null;
  label: string | null;
  p: number;
  parents: PublicKin[];
}

/** What a statement says of its animal besides the claims. */
export type StatedFact = 'number' | 'name' | 'sex' | 'hatchedOn' | 'cautions' | 'pictures';

export interface ShowcaseLine {
  animal: AnimalSummary;
  slug: string;
  publishedAt: string;
  claims: string[];
  /** The newest signed statement; null where nothing was signed yet. */
  statement: { statement: number; asOf: string } | null;
  /** What the newest statement says otherwise than the records do by now. */
  changes: ClaimChangeView[];
  /** What else is another by now than it was signed. */
  facts: StatedFact[];
  /** Why the breeder does not sign that; null where nothing was said of it. */
  withheld: string | null;
}

/** What the next statement would say otherwise, each with its reason. */
export interface AmendmentView {
  changes: { locus: string; from: string; to: string; because: string }[];
}

/** A key of the collection: the one in use, or one that was replaced. */
export interface SigningKeyView {
  id: string;
  did: string;
  /** Whether this server can sign with it; false where the secret that it was kept under is gone. */
  isUsable: boolean;
  /** Its fingerprint, to be read out. */
  words: string[];
  createdAt: string;
  replacedAt: string | null;
}

/** A signing key under a password: scrypt (RFC 7914) and AES-256-GCM; `sealed` is nonce, tag and text, base64. */
export interface KeyBackup {
  format: 'karyotome-key-backup/1';
  did: string;
  kdf: { name: 'scrypt'; N: number; r: number; p: number; salt: string };
  cipher: 'aes-256-gcm';
  sealed: string;
}
