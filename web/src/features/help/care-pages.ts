import type { HelpPage } from './help-page.ts';

/** Today, rounds and racks. */
export const CARE_PAGES: readonly HelpPage[] = [
  {
    at: /^\/today$/,
    title: 'Today',
    purpose:
      'Everything that needs a person today: what was left over first, then the room, eggs and season, then tub after tub in walking order. What is done is entered on the spot and leaves the list.',
    keys: [
      ['J, K', 'next row, row before'],
      ['T', 'the meal of this row was taken'],
      ['R', 'it was refused'],
      ['Enter', 'open this row’s animal or clutch'],
    ],
    hints: [
      'The question mark after a task says which rule and which records it rests on.',
      '“Feed all” at a rack enters its meals at once; touch those that did not take theirs. On a phone a row is swiped: to the right taken, to the left refused.',
      'Everything that was entered can be undone in the line at the bottom, and later from the animal’s page.',
    ],
    words: ['in blue', 'gravid', 'frozen-thawed'],
  },
  {
    at: /^\/today\/feeding$/,
    title: 'Today: Feeding night',
    purpose: 'Who eats tonight, what to thaw for it, and what the freezer holds afterwards.',
    hints: [
      'Stock that was bought, counted or lost is booked here; Today says when to order.',
      'Who is in shed, gravid or resting after a regurgitation is passed over, and it is said why.',
      'The list can be downloaded as a table.',
    ],
    words: ['frozen-thawed', 'gravid'],
  },
  {
    at: /^\/today\/sheds$/,
    title: 'Today: Sheds',
    purpose: 'Who is in shed, since when, and when the skin is expected to come off.',
    hints: [
      'A cycle begins with the first sign that was seen on a round: dull, blue or clear.',
      'A shed in pieces, or with retained eye caps, stays here with a plan of soaks. If it does not come off, see a veterinarian.',
      'While an animal is in shed, the round says at its tub: no handling, no cleaning.',
    ],
    words: ['in blue', 'eye cap'],
  },
  {
    at: /^\/today\/health$/,
    title: 'Today: Health',
    purpose:
      'Who shows signs, is under treatment, in quarantine or to be seen by a veterinarian, and which racks are watched for mites.',
    hints: [
      'Signs, visits, treatments, quarantine and post-mortem examinations are recorded on an animal’s page, under Health. What a sign means and what is given is for a veterinarian: nothing is proposed here.',
      'A dose has its number: whoever comes second is told that it was given. One that comes late moves those after it; two are never due at once.',
      'Mites seen on one animal put its whole rack under watch: all who live there are looked through every week, until none were seen for six weeks.',
    ],
  },
  {
    at: /^\/today\/plans$/,
    title: 'Today: Plans and rules',
    purpose: 'How hatchlings are started, how much and how often each weight eats, and when prey is ordered.',
    hints: [
      'A plan is a list of steps, tried one after another as meals are refused.',
      'What worked here, animal by animal, is counted beside the plans.',
      'A rule that is changed counts from now on; what was entered stays as it was.',
    ],
    words: ['frozen-thawed'],
  },
  {
    at: /^\/rounds$/,
    title: 'Rounds',
    purpose:
      'Tub after tub in walking order, one touch for each thing that is done. It works without a connection.',
    keys: [
      ['T, R, N', 'took it, refused, not offered'],
      ['D, B, C', 'skin dull, eyes blue, clear again'],
      ['S, P', 'shed whole, shed in pieces'],
      ['E, Q, K', 'eye caps off, eye caps stay, soaked'],
      ['L, G, V', 'cleaned, pushes at its tub, regurgitated'],
      ['W, O', 'weigh, note'],
      ['U', 'takes back what was entered last'],
      ['→, ←', 'next tub, tub before'],
      ['Esc', 'back to all racks'],
    ],
    hints: [
      '“Feed all” enters the meals of a rack at once; touch those that did not take theirs.',
      'The screen stays on during a round, and a phone buzzes when something was entered.',
      'A weight that cannot be right for this animal is asked about before it is kept.',
    ],
    words: ['in blue', 'eye cap', 'frozen-thawed'],
  },
  {
    at: /^\/racks$/,
    title: 'Racks',
    purpose: 'The room as it stands: who lives where, who should move and who had better not.',
    keys: [
      ['Enter', 'on a ring: takes the animal up; on “put here”: lays all in the hand down'],
      ['Esc', 'lets go'],
    ],
    hints: [
      'Drag an animal to a tub, or take up several by their rings and put them down together.',
      '“Walking order” puts the racks into the order in which you pass them: Today, rounds and lists of tubs follow it.',
      'An empty rack can be deleted by an owner, and restored for 30 days.',
    ],
    words: ['rack', 'ladder'],
  },
  {
    at: /^\/racks\/climate$/,
    title: 'Racks: Climate',
    purpose: 'The air of the rooms against their limits.',
    hints: [
      'Readings come by hand, from a logger’s file, or from a program with a token.',
      'The air of a room is not the warm end of a tub: check surfaces with the heat zones of each rack.',
      'Readings can be downloaded as one table.',
    ],
  },
  {
    at: /^\/racks\/forecast$/,
    title: 'Racks: Will it last',
    purpose: 'How many tubs of each size are needed, week by week for a year, and how many there are.',
    hints: [
      'Animals, eggs in the incubator and planned pairings are counted, each with its growth.',
      'What would mend a shortage is tried out on the spot.',
      'The growth of an animal is foretold from its own weights.',
    ],
  },
  {
    at: /^\/racks\/moves$/,
    title: 'Racks: What became of moves',
    purpose: 'How many days animals took to eat again after a move, step by step of the ladder.',
    hints: [
      'A step that is taken badly shows here first.',
      'Who went back to the last tub is counted, too.',
      'Shares come with intervals: a handful of moves says little.',
    ],
  },
  {
    at: /^\/racks\/ladders$/,
    title: 'Racks: Ladders',
    purpose: 'Enclosures in order of weight: which step an animal should live in.',
    hints: [
      'Weight is one reason to move among others; feeding, sheds and breeding speak, too.',
      'New racks take the ladder that is set under Settings.',
      'A ladder is changed as a whole, and advice follows at once.',
    ],
    words: ['ladder'],
  },
];
