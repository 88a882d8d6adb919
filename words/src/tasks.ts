import { REFERENCE_C, type TaskFact, type Tasks } from '@karyotome/core';
import { HEALTH_TASKS } from './health.ts';
import {
  CONCERNS,
  HOW_TO_CHECK_HEAT,
  heatFaultWords,
  REMAINS_WORDS,
  SEE_A_VET,
  soakAdvice,
} from './husbandry.ts';
import { mealTaskWords } from './meals.ts';
import { LOAN_TASKS } from './origin.ts';
import { reasonsLine } from './moves.ts';
import { capital, say, sentences, type Phrases, type Told } from './phrases.ts';
import type { Reader } from './reader.ts';
import { alarmWords, CUTTING_CAUTION, cuttingWords, waitWords } from './season.ts';

const IN_SHED = 'Humidity 75 to 80%, no handling, no cleaning; a refused meal does not count.';
const SEXING = 'Sexing is learned from somebody trained: inexperienced hands hurt animals.';
export const EGG_CHECK = 'Veins, movement, mould, dents, collapse. Never roll an egg: it drowns the embryo.';
export const NEVER_PULL = 'Never pull a hatchling out.';

const withVet =
  <Facts>(phrase: (facts: Facts, reader: Reader) => Told) =>
  (facts: Facts, reader: Reader): Told => {
    const { text, why } = phrase(facts, reader);
    return { text, why: sentences([why, SEE_A_VET]) };
  };

const OUTSIDE_LIMITS = 'Outside the limits you set. Check the heater, its probe and the thermostat.';

const TASKS: Phrases<Tasks, Told> = {
  ...HEALTH_TASKS,
  ...LOAN_TASKS,
  'below-own-best': withVet(CONCERNS['below-own-best']),
  'below-growth': withVet(CONCERNS['below-growth']),
  'meals-refused': withVet(CONCERNS['meals-refused']),
  'regurgitated-again': withVet(CONCERNS['regurgitated-again']),
  'first-shed-due': ({ ageDays, fromDay, toDay }) => ({
    text: `First shed expected, day ${ageDays}`,
    why: `First shed ${fromDay} to ${toDay} days after hatching.`,
  }),
  'shed-due': ({ stage, day, from, to }, reader) => ({
    text: `In shed (${stage}), day ${day}`,
    why: `Sign seen ${reader.days(day)} ago; shed expected ${reader.daySpan(from, to)}. ${IN_SHED}`,
  }),
  'shed-overdue': ({ day, from, to }, reader) => ({
    text: `In shed for ${reader.days(day)}: recheck`,
    why: `Sign seen ${reader.days(day)} ago; shed was expected ${reader.daySpan(from, to)}. ${IN_SHED}`,
  }),
  'soak-due': ({ remains, soak }, reader) => ({
    text: `${REMAINS_WORDS[remains]}: soak, day ${soak}`,
    why: soakAdvice(reader),
  }),
  'retained-shed': ({ remains, soaks }, reader) => ({
    text: `${REMAINS_WORDS[remains]} after ${reader.count(soaks, 'soak', 'soaks')}: see a veterinarian`,
    why: soakAdvice(reader),
  }),
  'meal-due': mealTaskWords,
  'cleaning-due': ({ lastOn, everyDays }, reader) => ({
    text: 'Clean',
    why: `Last cleaned on ${reader.day(lastOn)}; every ${reader.days(everyDays)}.`,
  }),
  'cleaning-after-shed-due': ({ shedOn }, reader) => ({
    text: 'Clean after the shed',
    why: `Shed on ${reader.day(shedOn)}: the tub is cleaned after it.`,
  }),
  'first-weighing-due': () => ({ text: 'Weigh', why: 'Never weighed.' }),
  'weighing-due': ({ lastOn, massG, everyDays }, reader) => ({
    text: 'Weigh',
    why: `Last weighed on ${reader.day(lastOn)}, ${reader.mass(Math.round(massG))}; every ${reader.days(everyDays)}.`,
  }),
  'identification-due': () => ({
    text: 'Identify',
    why: 'Hatchlings are identified after the first shed.',
  }),
  'identification-recheck-due': ({ sure, identifiedOn }, reader) => ({
    text: `Recheck: ${sure} so far`,
    why: `It has shed since it was identified on ${reader.day(identifiedOn)}: colours open up, some fade.`,
  }),
  'sexing-due': () => ({ text: 'Sex', why: `Not sexed yet. ${SEXING}` }),
  'sex-recheck-due': ({ sexedOn }, reader) => ({
    text: 'Recheck sex',
    why: `Recorded as female on ${reader.day(sexedOn)} because nothing was found: checked once more. ${SEXING}`,
  }),
  'bench-work-due': ({ identify, sex }) => ({
    text: capital(
      [...(identify > 0 ? [`identify ${identify}`] : []), ...(sex > 0 ? [`sex ${sex}`] : [])].join(', '),
    ),
    why: `Hatchlings are identified and sexed after the first shed. ${SEXING}`,
  }),
  'move-up': ({ reasons }, reader) => ({ text: 'Move up', why: reasonsLine(reasons, reader) }),
  'move-back': ({ reasons }, reader) => ({
    text: 'Move back to the last tub',
    why: reasonsLine(reasons, reader),
  }),
  'settling-after-move': ({ days }) => ({
    text: `Settling since the move, day ${days}`,
    why: 'One or two weeks to settle; judged by the meals after it.',
  }),
  'egg-check-due': ({ day }) => ({ text: `Day ${day}: check the eggs`, why: EGG_CHECK }),
  'first-pip-due': (expected, reader) => ({
    text: waitWords(expected),
    why: `First pip commonly on days 55 to 60 at about ${reader.temperature(REFERENCE_C)}, later when cooler. ${NEVER_PULL}`,
  }),
  hatching: ({ day }) => ({ text: `Day ${day}: hatching`, why: NEVER_PULL }),
  'cutting-due': ({ day, cutting }) => ({
    text: `Day ${day}: cut what has not pipped`,
    why: sentences([cuttingWords(cutting), CUTTING_CAUTION]),
  }),
  'eggs-due': (expected, reader) => ({
    text: `Check for eggs. ${waitWords(expected)}`,
    why: restsOn(expected.clutches, reader),
  }),
  'pre-lay-shed-due': (expected, reader) => ({
    text: `Pre-lay shed expected. ${waitWords(expected)}`,
    why: restsOn(expected.clutches, reader),
  }),
  'too-warm': (facts, reader) => ({
    text: alarmWords({ code: 'too-warm', facts }, reader),
    why: OUTSIDE_LIMITS,
  }),
  'too-cold': (facts, reader) => ({
    text: alarmWords({ code: 'too-cold', facts }, reader),
    why: OUTSIDE_LIMITS,
  }),
  'too-dry': (facts, reader) => ({
    text: alarmWords({ code: 'too-dry', facts }, reader),
    why: OUTSIDE_LIMITS,
  }),
  silent: (facts, reader) => ({
    text: `${alarmWords({ code: 'silent', facts }, reader)}: is the sensor working?`,
    why: 'A sensor that sends nothing warns of nothing: a failed heater is noticed late.',
  }),
  'heat-fault': ({ faults, everyDays }, reader) => ({
    text: `Heat: ${heatFaultWords(faults[0]!, reader)}`,
    why: sentences([
      ...faults.map((fault) => capital(heatFaultWords(fault, reader))),
      `Checked every ${reader.days(everyDays)}`,
      HOW_TO_CHECK_HEAT,
    ]),
  }),
  'heat-check-due': ({ everyDays }, reader) => ({
    text: 'Check the heat at the surface',
    why: sentences([`Every ${reader.days(everyDays)}`, HOW_TO_CHECK_HEAT]),
  }),
  'reservation-lapsed': ({ until }, reader) => ({
    text: 'The reservation ran out: for sale again',
    why: `It held until ${reader.day(until)}.`,
  }),
  'prey-short': (stock, reader) => ({
    text: `${-stock.left} ${stock.prey} short for tonight`,
    why: stockWhy(stock, reader),
  }),
  'prey-order-due': (stock, reader) => ({
    text: `Order ${stock.prey}: ${stock.left} left after tonight`,
    why: stockWhy(stock, reader),
  }),
};

const restsOn = (clutches: number, reader: Reader): string =>
  `Estimated from the usual times${clutches > 0 ? ` and ${reader.count(clutches, 'clutch', 'clutches')} of your own` : ''}. A female that strains, or whose eggs do not come, goes to a veterinarian.`;

const stockWhy = ({ tonight, perWeek, reorderAt, runsOutOn }: Tasks['prey-short'], reader: Reader): string =>
  `${tonight} are thawed tonight, about ${reader.number(perWeek)} a week lately; order at ${reorderAt}${runsOutOn ? `, out on ${reader.day(runsOutOn)}` : ''}.`;

/** What is to be done, and why. */
export const taskWords = (task: TaskFact, reader: Reader): Told => say(TASKS, task, reader);
