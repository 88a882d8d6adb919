import type { HelpPage } from './help-page.ts';

/** The season, eggs and the bench. */
export const BREEDING_PAGES: readonly HelpPage[] = [
  {
    at: /^\/season$/,
    title: 'Season: Board',
    purpose:
      'All grown females and males by what can be done with them, from not yet to eggs in the incubator.',
    keys: [
      ['Enter', 'on “Select”: selects this male; on “Put here”: introduces him to her'],
      ['Esc', 'lets him go'],
    ],
    hints: [
      'Drag a male to a female to introduce him; what speaks against the pair is said before.',
      'A lock, an ovulation or a pre-lay shed moves her on, and foretells the day of laying.',
      'Your own minimum weights and ages stand under Rules.',
    ],
    words: ['lock', 'ovulation', 'gravid', 'pre-lay shed'],
  },
  {
    at: /^\/season\/planner$/,
    title: 'Season: Planner',
    purpose:
      'What a pair can produce before it is made, the best mates for an animal, a plan for the season, and routes to a target over several seasons.',
    hints: [
      'Odds count what a parent is only possibly het for.',
      'Doubles that are thought not to live are left out of the odds, and it is said.',
      'A route is played through many times: years and places needed come as a spread, not as one number.',
    ],
    words: ['visual', 'het', 'possible het', 'hold-back'],
  },
  {
    at: /^\/season\/projects$/,
    title: 'Season: Projects',
    purpose: 'What you are breeding for, by which route, and which projects want the same animal.',
    hints: [
      'A route of the planner becomes a project with one touch: “Make it a project”.',
      'Where two projects want the same animal for what comes next, both say so.',
      'A project that is over is ended, not removed: what came of it can be read later.',
    ],
    words: ['hold-back'],
  },
  {
    at: /^\/season\/projects\//,
    title: 'A project',
    purpose:
      'What comes next in a project and when it can, what hatched against the odds, and who was held back and why.',
    hints: [
      'The route is played anew whenever something changed: an animal grew, a clutch hatched, somebody was sold.',
      '“Held back” at a step says which hatchling takes its place: the plan goes on with it.',
      'Pairings of the project’s animals with one another are counted by themselves. Luck is reckoned with the odds from before the young were looked at, so that a lucky clutch does not make itself look likely.',
    ],
    words: ['hold-back', 'possible het'],
  },
  {
    at: /^\/season\/incubators$/,
    title: 'Season: Incubators',
    purpose: 'The climate of each incubator against its limits.',
    hints: [
      'Readings come by hand, from a logger’s file, or from a program with a token.',
      'Out of range or silent, an incubator stands on Today. Nothing rings here: keep a thermostat with a cut-out on every heater.',
      'The same logger’s file again adds nothing twice.',
    ],
  },
  {
    at: /^\/season\/past$/,
    title: 'Season: Past seasons',
    purpose: 'All pairings and clutches, and how many of their eggs hatched.',
    hints: [
      'Hatch rates are counted by season, female, male and temperature, each share with its interval.',
      'The whole list can be downloaded as a table.',
      'A clutch leads to its eggs, or to its young on the bench.',
    ],
    words: ['slug', 'pip'],
  },
  {
    at: /^\/season\/clutches\//,
    title: 'Eggs of a clutch',
    purpose: 'One clutch from laying to numbered hatchlings, egg by egg as it lies in its box.',
    keys: [
      ['Space', 'chooses this egg, or lets it go'],
      ['Arrows', 'lay it elsewhere in the box'],
      ['Enter', 'after a weight: on to the next egg'],
    ],
    hints: [
      'Several eggs are chosen at once, and what is entered counts for all of them.',
      'The days to come, from the first pip to hatching, stand beside the box, and on Today when they are due.',
      'Hatching numbers all young at once; the numbers follow your pattern.',
    ],
    words: ['slug', 'candling', 'pip', 'cut'],
  },
  {
    at: /^\/bench$/,
    title: 'Bench',
    purpose: 'Clutches whose young wait to be identified and sexed.',
    hints: [
      'A clutch’s desk leads through set-up, sorting, identification, labels and tubs.',
      'A clutch whose eggs are still in the incubator is under Season.',
      'How your calls proved later is counted under Calls.',
    ],
    words: ['morph', 'het', 'hold-back'],
  },
  {
    at: /^\/bench\/calls$/,
    title: 'Bench: Calls',
    purpose: 'How often an identification proved right: by how sure it was, by gene and by person.',
    hints: [
      'A call is settled by a later look that was certain, or by the animal’s own young.',
      'What was certain and proved wrong is named.',
      'Shares come with intervals: a handful of calls says little.',
    ],
  },
  {
    at: /^\/bench\/.+/,
    title: 'Bench: one clutch',
    purpose:
      'The young of one clutch side by side: like is put with like, then each is named, with the odds beside it.',
    keys: [
      ['Enter', 'takes this hatchling in the hand; in the hand, Esc lays it back'],
      ['J, K', 'in the hand: the next one, the one before'],
      ['[ ]', 'on the table: into the group before, into the next or a new one'],
      ['M', 'marks it to be compared: with the second one both are shown'],
      ['Arrows', 'while comparing: other pictures of the left one, with Shift of the right one'],
    ],
    hints: [
      'The zone map says where to look next, and the odds follow each observation.',
      'Somebody outside can be asked by a link that shows pictures and nothing else.',
      'Labels with codes are printed for the tubs; scanning one on a round leads to its animal.',
    ],
    words: ['tell', 'popping', 'probing', 'possible het', 'super'],
  },
];
