import type { IsoDay } from '../calendar/days.ts';
import type { SeasonForecast } from '../breeding/forecast.ts';
import type { Task } from '../husbandry/today.ts';
import type { ClimateAlarm } from './climate.ts';
import { CHECK_LATE_DAYS, CUTTING_CAUTION, type IncubationClock } from './clock.ts';

const ASK: Readonly<Record<'check' | 'pip' | 'cut', string>> = {
  check: 'Veins, movement, mould, dents, collapse. Never roll an egg: it drowns the embryo.',
  pip: 'First pip commonly on days 55 to 60 at 31.1 to 31.7 °C, later when cooler. Never pull a hatchling out.',
  cut: CUTTING_CAUTION,
};

/** What a clutch in the incubator needs on a day. */
export function clutchTasks(clock: IncubationClock, today: IsoDay): Task[] {
  const { day, pip, cutOn } = clock;
  const task = (text: string, why: string, dueOn: IsoDay): Task => ({
    kind: 'eggs',
    text,
    why,
    dueOn,
    records: [],
  });
  const check = clock.milestones.find(
    (milestone) =>
      milestone.what === 'Check the eggs' &&
      !milestone.done &&
      day >= milestone.day &&
      day < milestone.day + CHECK_LATE_DAYS,
  );
  const tasks: Task[] = [];
  if (pip === null) tasks.push(task(`Day ${day}: hatching`, ASK.pip, today));
  else if (pip.from <= today) tasks.push(task(pip.words, ASK.pip, pip.from));
  else if (check) tasks.push(task(`Day ${day}: check the eggs`, ASK.check, check.on));
  if (cutOn !== null && cutOn <= today)
    tasks.push(task(`Day ${day}: cut what has not pipped`, `${clock.cutWords} ${ASK.cut}`, cutOn));
  return tasks;
}

/** What a female's season asks for on a day: to look for the shed, or for eggs. */
export function seasonTasks(forecast: SeasonForecast, today: IsoDay): Task[] {
  return forecast.expected
    .filter(({ what, from }) => from <= today && !(what === 'eggs' && forecast.stage === 'ovulated'))
    .map(({ what, words, from, clutches }) => ({
      kind: 'season',
      text: what === 'eggs' ? `Look for eggs. ${words}` : `Pre-lay shed expected. ${words}`,
      why: `Rests on the usual times${clutches > 0 ? ` and ${clutches} of your own clutches` : ''}. A female that strains, or whose eggs do not come, goes to a veterinarian.`,
      dueOn: from,
      records: [],
    }));
}

/** What is wrong in an incubator, as a line for the day. */
export function climateTasks(alarms: readonly ClimateAlarm[], today: IsoDay): Task[] {
  return alarms.map(({ kind, words }) => ({
    kind: 'climate',
    text: kind === 'silent' ? `${words}: is it still measuring?` : words,
    why:
      kind === 'silent'
        ? 'A sensor that says nothing warns of nothing. A failed heater is noticed late.'
        : 'Outside the limits you set. Check the heater, its probe and the thermostat.',
    dueOn: today,
    records: [],
  }));
}
