import type { Complaint, Goal } from '@hot-spline/model';
import type { Option } from '../shared/choice';

export const GOAL_OPTIONS: readonly Option<Goal>[] = [
  { value: 'time', label: 'Least time to the finish' },
  { value: 'finish', label: 'Rpm range at the finish' },
  { value: 'cruise', label: 'Rpm range at cruise' },
  { value: 'crawl', label: 'Crawl' },
];

export const COMPLAINT_OPTIONS: readonly Option<Complaint>[] = [
  { value: 'runs-hot', label: 'runs hot' },
  { value: 'whines', label: 'whines' },
  { value: 'one-wheel-spins', label: 'one wheel spins' },
  { value: 'chatters', label: 'chatters' },
  { value: 'pushes-wide', label: 'pushes wide' },
  { value: 'snaps-on-lift', label: 'snaps on lift' },
  { value: 'drags-in-turns', label: 'drags in turns' },
];

/** Where each complaint is taken up. */
export const COMPLAINT_LEADS: Readonly<
  Record<Complaint, { readonly sheet: string; readonly tab: string; readonly at: string; readonly where: string }>
> = {
  'runs-hot': { sheet: 'gearing', tab: 'heat', at: 'climb-grade', where: 'heat in the converter on a climb' },
  whines: { sheet: 'gearing', tab: 'noise', at: 'noise-speed', where: 'mesh and bearing orders, what to look at' },
  'one-wheel-spins': tune('one-wheel-spins'),
  chatters: tune('chatters'),
  'pushes-wide': tune('pushes-wide'),
  'snaps-on-lift': tune('snaps-on-lift'),
  'drags-in-turns': tune('drags-in-turns'),
};

function tune(complaint: Complaint) {
  return { sheet: 'unit', tab: 'tune', at: `complaint-${complaint}`, where: 'steps that serve it, computed' };
}

export const USE_WORDS: Readonly<Record<string, string>> = {
  street: 'Street',
  drag: 'Drag',
  circuit: 'Circuit',
  'hill-climb': 'Hill-climb',
  drift: 'Drift',
  oval: 'Oval',
  rock: 'Rock',
  raid: 'Raid',
};
