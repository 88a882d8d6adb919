import type { HelpPage } from './help-page.ts';

/** Animals, the showcase, genes and settings. */
export const COLLECTION_PAGES: readonly HelpPage[] = [
  {
    at: /^\/animals$/,
    title: 'Animals',
    purpose: 'Everybody in the collection, and, if you ask for them, those that were sold or died.',
    hints: [
      'A search takes words in any order: number, name, genes, room and rack. Or it asks: “female, clown or het clown, over 1200 g, not bred this season”; what it asks can be kept as a list.',
      'Titles of columns sort, and columns can be chosen; what is shown can be downloaded as a table.',
      'Add an animal by typing its genes as you would write them on a tub.',
    ],
    words: ['het', 'visual', 'super', 'hold-back'],
  },
  {
    at: /^\/animals\/import/,
    title: 'Animals: Bring in CSV',
    purpose:
      'Spreadsheets of animals, weights, feedings or clutches are read, looked through and brought in.',
    hints: [
      'Columns and words are matched first; nothing is written before you have seen what would be.',
      'Rows with faults are listed with their fields, and can be left out.',
      'A file is taken back as a whole.',
    ],
  },
  {
    at: /^\/animals\/take-in$/,
    title: 'Animals: Take in',
    purpose: 'An animal of another breeder with its signed statement.',
    hints: [
      'The signature is checked on this server, and what the statement rests on is read with it.',
      'You decide how far another breeder’s word counts here.',
      'A statement that is taken back later counts no more, and claims follow.',
    ],
  },
  {
    at: /^\/animals\/contradictions$/,
    title: 'Animals: Contradictions',
    purpose: 'Records that cannot all be true, and what may have gone wrong.',
    hints: [
      'Explanations are ranked by how likely each slip is.',
      'A record that is voided stays to be seen, and claims follow at once.',
      'The list can be downloaded as a table.',
    ],
  },
  {
    at: /^\/animals\/[^/]+/,
    title: 'One animal',
    purpose:
      'All that is known of one animal: what it carries and how sure that is, its care, its kin and its papers.',
    hints: [
      'Each claim says which records it rests on and what would prove it.',
      'A record is corrected with a reason; what was there stays to be seen.',
      'Its page for buyers is published from here, with a statement that anybody can verify.',
    ],
    words: ['het', 'possible het', 'proven', 'breeding loan'],
  },
  {
    at: /^\/showcase$/,
    title: 'Showcase',
    purpose: 'What is published, with signed statements that anybody can verify.',
    hints: [
      'A claim that falls after publication is named, with what to tell the buyer.',
      'The words of an offer are yours; its claims come from the records alone.',
      'The signing key can be backed up in a file with a password.',
    ],
    words: ['hold-back', 'proven', 'possible het'],
  },
  {
    at: /^\/showcase\//,
    title: 'Showcase: sales and people',
    purpose: 'Sales, the waiting list, questions of visitors, letters and the address book.',
    hints: [
      'An animal that fits a wish is offered to the first in the list, and goes on to the next.',
      'No letter goes out before you have looked at it.',
      'A person is erased on request; what happened to animals stays.',
    ],
  },
  {
    at: /^\/genes$/,
    title: 'Genes',
    purpose:
      'The catalogue: genes, complexes, names of combinations, marks to look for, cautions, and your own.',
    hints: [
      'Where breeders do not agree it is said, and you can set the rule for your collection.',
      'What looks different and is not proven is added as such: nothing is inferred from it, and the pairings that would prove it are named here, with how many young they need.',
      'A name that you use for a combination is read wherever genes are typed.',
    ],
    words: ['co-dominant', 'super', 'het', 'tell', 'proven'],
  },
  {
    at: /^\/settings/,
    title: 'Settings',
    purpose:
      'The farm, people and what each may do, your own account, the history, what was deleted, and the way out with all your data.',
    hints: [
      'Every write is in the history: who, when, what was and what is.',
      'What was deleted can be restored for 30 days.',
      'The whole collection can be exported, and taken in again elsewhere.',
    ],
  },
];
