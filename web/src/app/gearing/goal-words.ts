import { entryBase, say, type UnitSystem } from '@hot-spline/core';
import { finishName, goalOf, limitWords, limitsOf, type Build } from '@hot-spline/model';
import { GOAL_OPTIONS } from '../identity/words';

/** The goal of the brief in a line, with what is asked beside it. */
export function goalWords(build: Build, system: UnitSystem): string {
  const goal = goalOf(build);
  const name = GOAL_OPTIONS.find(({ value }) => value === goal.kind)?.label.toLowerCase() ?? '';
  const window = 'lowRpm' in goal ? `, ${goal.lowRpm} to ${goal.highRpm} rpm` : '';
  const where =
    goal.kind === 'cruise'
      ? `, ${say(entryBase(build.cruiseSpeed), 'speed', system, 0)}`
      : goal.kind === 'crawl'
        ? `, ${goal.ratio.toFixed(0)} to 1`
        : `, ${finishName(build.brief.distance)}`;
  const beside = limitWords(limitsOf(build), system);
  return `${name}${where}${window}${beside === '' ? '' : `; ${beside}`}`;
}
