import type { Complaint, Goal } from '@hot-spline/model';
import type { Option } from '../shared/choice';

export const GOAL_OPTIONS: readonly Option<Goal>[] = [
  { value: 'time', label: 'Least time to a mark' },
  { value: 'finish', label: 'Rpm window at the mark' },
  { value: 'cruise', label: 'Rpm window at cruise' },
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
