import { say, type Change, type FindGoal, type FindLimits, type Reason, type UnitSystem } from '@hot-spline/core';

const rpm = (value: number): string => say(value, 'rotation', 'inch');

/** A reason of the ratio finder in plain words. */
export function reasonWords({ code, value, limit }: Reason, system: UnitSystem): string {
  switch (code) {
    case 'goal-best':
      return `quickest of all: ${value.toFixed(3)} s`;
    case 'goal-behind':
      return `${value.toFixed(3)} s behind the quickest`;
    case 'window-met':
      return `${rpm(value)}: inside the window`;
    case 'window-below':
      return `${rpm(value)}: ${rpm(limit - value)} below the window`;
    case 'window-above':
      return `${rpm(value)}: ${rpm(value - limit)} above the window`;
    case 'limit-cruise':
      return `cruise ${rpm(value)}: at most ${rpm(limit)} asked`;
    case 'limit-time':
      return `${value.toFixed(2)} s: at most ${limit.toFixed(2)} s asked`;
    case 'limit-top':
      return `top speed ${say(value, 'speed', system, 0)}: at least ${say(limit, 'speed', system, 0)} asked`;
    case 'limit-crawl':
      return `crawl ratio ${value.toFixed(1)}: at least ${limit.toFixed(1)} asked`;
    case 'crawl-met':
      return `crawl ratio ${value.toFixed(1)}: the brief wants ${limit.toFixed(1)}`;
    case 'crawl-short':
      return `crawl ratio ${value.toFixed(1)}: ${(limit - value).toFixed(1)} short`;
    case 'stall-near':
      return value < 0
        ? `cruise ${rpm(-value)} below converter stall: it slips and runs hot`
        : `cruise only ${rpm(value)} above converter stall, wants ${rpm(limit)}: runs warm`;
    case 'stall-clear':
      return `cruise ${rpm(value)} above converter stall`;
    case 'cruise-limiter':
      return `cruise needs ${rpm(value)}, the limiter is at ${rpm(limit)}`;
    case 'torque-over':
      return `${say(value, 'torque', system, 0)} at the ring gear, the set stands ${say(limit, 'torque', system, 0)}`;
    case 'finish-limiter':
      return `${value.toFixed(2)} s on the limiter before the finish`;
    case 'hunts':
      return 'hunting tooth count';
    case 'does-not-hunt':
      return `teeth share the divisor ${value}`;
    case 'carrier-none':
      return 'no known carrier takes it';
    case 'extra-shift':
      return value === 1 ? 'one shift more than now' : `${value} shifts more than now`;
    case 'fewer-shifts':
      return value === 1 ? 'one shift fewer than now' : `${value} shifts fewer than now`;
  }
}

/** What is asked beside the goal, in a line; nothing where nothing is. */
export function limitWords({ cruiseRpm, timeS, topMps, crawlRatio }: FindLimits, system: UnitSystem): string {
  return [
    cruiseRpm === undefined ? '' : `cruise at most ${rpm(cruiseRpm)}`,
    timeS === undefined ? '' : `at most ${timeS.toFixed(2)} s`,
    topMps === undefined ? '' : `top speed at least ${say(topMps, 'speed', system, 0)}`,
    crawlRatio === undefined ? '' : `crawl at least ${crawlRatio.toFixed(0)} to 1`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** What has to be changed with a ratio, in plain words. */
export function changeWords(change: Change): string {
  switch (change.code) {
    case 'carrier':
      return `carrier: ${change.name}`;
    case 'speed-reading':
      return `speed reading × ${change.factor.toFixed(3)}`;
    case 'tyre':
      return `a tyre ${Math.abs(100 * (change.factor - 1)).toFixed(1)} % ${change.factor > 1 ? 'larger' : 'smaller'} would keep today’s rpm`;
    case 'timing-marks':
      return 'align the timing marks';
  }
}

/** A score in the words of its goal. */
export function scoreWords(goal: FindGoal['kind'], score: number): string {
  if (goal === 'time') return `${score.toFixed(3)} s`;
  if (goal === 'crawl') return score === 0 ? 'met' : `${(100 * score).toFixed(1)} % short`;
  return score === 0 ? 'in window' : `${Math.round(score)} rpm off`;
}
