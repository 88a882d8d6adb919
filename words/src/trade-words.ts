/** Words of the trade that somebody new to it may not know, each with what it means. */
export const TRADE_WORDS = {
  het: 'Carries one copy of a recessive gene and does not show it. “100% het” is certain; “66% het” has two chances in three.',
  'possible het': 'May carry a recessive gene unseen. How likely that is follows from its kin.',
  visual: 'Shows the gene. A recessive gene shows with two copies, a dominant one with one.',
  super: 'Has two copies of a gene that shows with one already, and often looks different from one copy.',
  'co-dominant': 'Said in the trade of a gene whose one copy shows, and whose two copies show differently.',
  morph: 'What an animal looks like by its genes.',
  proven: 'Known from its own young, not from its looks or its parents alone.',
  'hold-back': 'A young animal that is kept for a later season instead of being sold.',
  lock: 'The two copulate; it may last for hours.',
  ovulation: 'The eggs are released: a swelling behind the middle of the body for about a day.',
  gravid: 'Carries eggs, from ovulation to laying.',
  'pre-lay shed': 'The shed after ovulation; the eggs follow about a month later.',
  slug: 'An infertile egg: small, yellow, without veins.',
  candling: 'Looking at an egg against a light, for veins and movement.',
  pip: 'The first slit that a hatchling makes in its egg.',
  cut: 'A window opened in an egg that has not pipped, by the keeper’s rule.',
  'in blue': 'Before a shed: the eyes are cloudy and it sees badly.',
  'eye cap':
    'The clear scale over the eye; it comes off with the shed. One that stays is for a veterinarian.',
  ladder: 'Enclosures in order of weight, from the smallest to the largest.',
  rack: 'A stand of tubs on levels.',
  'frozen-thawed': 'Prey that was bought frozen and is thawed before it is offered.',
  popping:
    'Sexing by everting the hemipenes of a hatchling. Learned from somebody trained: inexperienced hands hurt animals.',
  probing: 'Sexing by the depth that a blunt probe goes in behind the vent. Learned from somebody trained.',
  tell: 'A mark by which the eye knows a gene.',
  'breeding loan': 'An animal that lives with somebody else for a time, to be bred there.',
} as const;

export type TradeWord = keyof typeof TRADE_WORDS;
