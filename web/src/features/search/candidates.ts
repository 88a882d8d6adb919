import type { AnimalSummary, ClutchHit, PersonHit } from '@karyotome/contract';
import { placeWords } from '@karyotome/words';
import type { WholeRound } from '../../offline/device.ts';
import { dayWords, sexSign, statusWords } from '../../format/format.ts';
import { stopPlace, stopsOf, type Stop } from '../rounds/useRoundPlace.ts';

export type Kind = 'animal' | 'rack' | 'clutch' | 'person' | 'gene' | 'place';

/** Something that can be found and opened. */
export interface Candidate {
  readonly key: string;
  readonly kind: Kind;
  readonly title: string;
  readonly about: string;
  /** What it is found by. */
  readonly text: string;
  readonly to: string;
}

/** An animal in its place, on which something can be entered. */
export interface Target extends Stop {
  /** What it is found by: number, genes, rack and tub. */
  readonly text: string;
}

/** As it is typed without a hyphen: "F-12" is found by "f12". */
const joined = (number: string): string => number.replaceAll(/[^\p{L}\p{N}]/gu, '');

export const targetsOf = (round: WholeRound | null): Target[] =>
  (round?.racks ?? []).flatMap((rack) =>
    stopsOf(rack).map((stop) => ({
      ...stop,
      text: [stop.animal.number, joined(stop.animal.number), stopPlace(stop), stop.animal.label].join(' '),
    })),
  );

export const ofTarget = ({ animal, rack, place, text }: Target): Candidate => ({
  key: `animal.${animal.id}`,
  kind: 'animal',
  title: `${animal.number} ${sexSign(animal.sex)}`,
  about: [animal.label, stopPlace({ rack, place })].join(' · '),
  text: `${text} ${animal.sex}`,
  to: `/animals/${animal.id}`,
});

export const ofAnimal = ({ id, number, name, sex, label, tub, status }: AnimalSummary): Candidate => ({
  key: `animal.${id}`,
  kind: 'animal',
  title: `${number}${name ? ` ${name}` : ''} ${sexSign(sex)}`,
  about: [label, tub ? placeWords(tub) : statusWords(status)].join(' · '),
  text: `${number} ${joined(number)} ${name ?? ''} ${label}`,
  to: `/animals/${id}`,
});

export const racksOf = (round: WholeRound | null): Candidate[] =>
  (round?.racks ?? []).flatMap(({ id, name, room, tubs }) =>
    name === null
      ? []
      : [
          {
            key: `rack.${id}`,
            kind: 'rack' as const,
            title: name,
            about: `${room} · round of ${tubs.reduce((sum, { animals }) => sum + animals.length, 0)}`,
            text: `${name} ${room} rack round`,
            to: `/rounds?rack=${id}`,
          },
        ],
  );

export const ofClutch = ({ id, name, dam, laidOn, hatchedOn }: ClutchHit): Candidate => ({
  key: `clutch.${id}`,
  kind: 'clutch',
  title: `Clutch ${name}`,
  about: `of ${dam} · ${hatchedOn === null ? `laid ${dayWords(laidOn)}` : `hatched ${dayWords(hatchedOn)}`}`,
  text: `clutch ${name} ${dam}`,
  to: hatchedOn === null ? `/season/clutches/${id}` : `/bench/${id}`,
});

export const ofPerson = ({ id, name }: PersonHit): Candidate => ({
  key: `person.${id}`,
  kind: 'person',
  title: name,
  about: 'in the address book',
  text: name,
  to: `/showcase/people?person=${id}`,
});
