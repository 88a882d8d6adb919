import { CATALOGUE, ZONES, type Zone } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { zoneLook } from './zone-look.ts';

const brightness = (colour: string): number =>
  [1, 3, 5].reduce((sum, at) => sum + parseInt(colour.slice(at, at + 2), 16), 0) / 3;
const ORDINARY = zoneLook([]);
const colourOf = (look: ReturnType<typeof zoneLook>, zone: Zone): number => brightness(look[zone].colour);

describe('an example that is drawn from the markers of a gene', () => {
  test('is an ordinary animal where they say nothing', () => {
    const look = zoneLook([{ zone: 'head top', text: 'pale, smudged' }]);
    for (const zone of ZONES) if (zone !== 'head top') expect(look[zone]).toEqual(ORDINARY[zone]);
    expect(colourOf(look, 'head top')).toBeGreaterThan(colourOf(ORDINARY, 'head top') + 40);
  });

  test('is darker where it is said to be dark, and lighter all over on a light ground', () => {
    const dark = zoneLook([{ zone: 'flanks', text: 'dark edges' }]);
    expect(colourOf(dark, 'flanks')).toBeLessThan(colourOf(ORDINARY, 'flanks'));
    const light = zoneLook([{ zone: 'ground colour', text: 'lighter, creamy' }]);
    for (const zone of ['back', 'neck', 'tail'] as const)
      expect(colourOf(light, zone)).toBeGreaterThan(colourOf(ORDINARY, zone));
    expect(light.eyes).toEqual(ORDINARY.eyes);
  });

  test('has the pattern that the words name', () => {
    expect([ORDINARY.flanks.pattern, ORDINARY.back.pattern]).toEqual(['marks', 'bands']);
    const striped = zoneLook([{ zone: 'back', text: 'unbroken pale stripe' }]);
    expect(striped.back.pattern).toBe('stripe');
    const few = zoneLook([{ zone: 'flanks', text: 'few small dots' }]);
    expect(few.flanks).toMatchObject({ pattern: 'dots', isSparse: true });
  });

  test('differs from an ordinary one for nearly every gene of the catalogue that has markers', () => {
    const alleles = CATALOGUE.loci.flatMap((locus) => locus.alleles.map(({ id }) => id));
    const told = alleles
      .map((id) => ({ id, markers: CATALOGUE.markers.filter(({ phenotypes }) => phenotypes.includes(id)) }))
      .filter(({ markers }) => markers.length > 0);
    expect(told.length).toBeGreaterThan(80);
    const plain = told.filter(
      ({ markers }) => JSON.stringify(zoneLook(markers)) === JSON.stringify(ORDINARY),
    );
    expect(plain.length / told.length).toBeLessThan(0.2);
  });
});
