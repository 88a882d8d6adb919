import { ZONES, type TraitMarker, type Zone } from '@karyotome/core';

/** A colour as red, green and blue, 0 to 255 each. */
type Colour = readonly [number, number, number];

/** An ordinary animal: dark ground with lighter marks, pale lips and belly. Common practice, no source. */
const ORDINARY: Readonly<Record<Zone, Colour>> = {
  'ground colour': [74, 52, 33],
  flanks: [172, 124, 68],
  back: [58, 40, 25],
  'belly edge': [222, 206, 176],
  'head top': [84, 58, 36],
  'eye stripe': [196, 152, 96],
  neck: [92, 64, 40],
  lips: [218, 198, 164],
  eyes: [30, 22, 16],
  tail: [92, 64, 40],
};

interface Tint {
  readonly words: RegExp;
  readonly to: Colour;
  /** How far a colour goes towards it. */
  readonly share: number;
}

/** What words do to a colour, in the order in which they are applied. */
const TINTS: readonly Tint[] = [
  {
    words: /\b(pale|paler|light|lighter|creamy|cream|sandy|tan|milky|faded|fading|washed|smudged|clean)\b/,
    to: [238, 222, 192],
    share: 0.55,
  },
  { words: /\b(white|crown|splashes)\b/, to: [250, 247, 240], share: 0.85 },
  { words: /\b(yellow|yellowed|yellow-orange|lemon|gold|golden|blushed?)\b/, to: [232, 190, 62], share: 0.6 },
  { words: /\b(orange|yellow-orange|flaming|flame-like|copper)\b/, to: [222, 128, 46], share: 0.6 },
  { words: /\b(red|reddish|rusty)\b/, to: [176, 72, 40], share: 0.5 },
  { words: /\b(bright|brighter|warm|high)\b/, to: [226, 172, 84], share: 0.35 },
  { words: /\b(lilac|lavender|purple|purplish)\b/, to: [164, 138, 178], share: 0.6 },
  { words: /\b(pink|pinkish)\b/, to: [222, 164, 158], share: 0.6 },
  { words: /\b(grey|gray|silver|blue|bluish)\b/, to: [150, 152, 158], share: 0.6 },
  { words: /\b(brown|brownish|browned|chocolate)\b/, to: [92, 60, 36], share: 0.5 },
  { words: /\b(dark|darker|darkened|black|blacks)\b/, to: [26, 20, 16], share: 0.65 },
];
/** Pattern that is said not to be there takes the colour of the ground. */
const NOTHING = /\b(no|without|few|reduced|plain|patternless|broken|thin)\b/;
const NOTHING_SHARE = 0.5;

const towards = (from: Colour, to: Colour, share: number): Colour =>
  from.map((part, i) => part + (to[i]! - part) * share) as unknown as Colour;
const hex = (colour: Colour): string =>
  `#${colour.map((part) => Math.round(part).toString(16).padStart(2, '0')).join('')}`;

/** What is drawn along the body. */
export type Pattern = 'marks' | 'bands' | 'dots' | 'stripe' | 'tangled' | 'none';
const PATTERNS: readonly (readonly [RegExp, Pattern])[] = [
  [/\b(plain|patternless|no pattern|without pattern)\b/, 'none'],
  [/\b(tangled|twisted|crowded|busy|smeared|flowing|flaming|upward|fused|pulled)\b/, 'tangled'],
  [/\b(dots?|spots?|speckles?|freckles?)\b/, 'dots'],
  [/\b(stripes?|lines?|unbroken)\b/, 'stripe'],
  [/\b(bands?|banded|ringed|blotch|blotches|stalks)\b/, 'bands'],
];
const USUAL_PATTERN: Partial<Readonly<Record<Zone, Pattern>>> = { flanks: 'marks', back: 'bands' };

export interface ZoneLook {
  readonly colour: string;
  readonly pattern: Pattern;
  /** Of the pattern. */
  readonly ink: string;
  /** Its marks are fewer, thinner or broken. */
  readonly isSparse: boolean;
}

/**
 * How an animal with one gene is drawn: the colours and pattern of an ordinary one, changed by the words of the gene's markers,
 * zone by zone. What they say of the ground shows wherever it does.
 */
export function zoneLook(markers: readonly TraitMarker[]): Record<Zone, ZoneLook> {
  const saidOf = (zone: Zone): string =>
    markers
      .filter((marker) => marker.zone === zone)
      .map(({ text }) => text.toLowerCase())
      .join(' ');
  const ground = tinted(ORDINARY['ground colour'], saidOf('ground colour'));
  return Object.fromEntries(
    ZONES.map((zone): [Zone, ZoneLook] => {
      // The body is seen against its ground: a change of it goes through everything a little.
      const share = zone === 'ground colour' ? 1 : zone === 'eyes' ? 0 : 0.25;
      const base = towards(ORDINARY[zone], ground, share);
      const said = saidOf(zone);
      const own = zone === 'ground colour' ? base : tinted(base, said);
      const isSparse = zone !== 'ground colour' && NOTHING.test(said);
      return [
        zone,
        {
          colour: hex(isSparse ? towards(own, ground, NOTHING_SHARE) : own),
          pattern: PATTERNS.find(([words]) => words.test(said))?.[1] ?? USUAL_PATTERN[zone] ?? 'none',
          ink: hex(towards(own, INK, INK_SHARE)),
          isSparse,
        },
      ];
    }),
  ) as Record<Zone, ZoneLook>;
}

const INK: Colour = [18, 12, 8];
const INK_SHARE = 0.6;

const tinted = (colour: Colour, said: string): Colour =>
  TINTS.reduce((now, { words, to, share }) => (words.test(said) ? towards(now, to, share) : now), colour);
