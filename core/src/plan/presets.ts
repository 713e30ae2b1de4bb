import type { Facts, UnitKind } from './facts';

/** What people call a job. Each only sets switches; whoever looks sees which, and changes them. */
export const JOBS = [
  'ratio-swap',
  'unit-change',
  'overhaul',
  'insert',
  'locker',
  'full-build',
  'plates',
  'input-float',
  'loose-unit',
] as const;
export type Job = (typeof JOBS)[number];

/** The facts that a preset sets; the rest is the axle's. */
export type JobFacts = Pick<Facts, 'arrives' | 'gears' | 'unit' | 'sideBearings' | 'pinionBearings' | 'box'>;

/**
 * The switches of a preset (common practice; ours where shops differ).
 * @param kind the unit that runs in the end: plate units are opened to be set, others go in as delivered
 */
export function presetOf(job: Job, kind: UnitKind): JobFacts {
  const nothing = {
    arrives: 'car',
    gears: 'stay',
    unit: 'stays',
    sideBearings: 'stay',
    pinionBearings: 'stay',
    box: 'stays',
  } as const;
  const put = kind === 'locker' ? 'locker' : kind === 'plate' ? 'new-opened' : 'new-closed';
  switch (job) {
    case 'ratio-swap':
      return { ...nothing, gears: 'new', sideBearings: 'new', pinionBearings: 'new' };
    case 'unit-change':
      return { ...nothing, unit: put, sideBearings: 'new' };
    case 'overhaul':
      return { ...nothing, unit: 'own-overhauled', sideBearings: 'new' };
    case 'plates':
      return { ...nothing, unit: 'own-overhauled' };
    case 'insert':
      return { ...nothing, unit: 'insert' };
    case 'locker':
      return { ...nothing, unit: 'locker', sideBearings: 'new' };
    case 'full-build':
      return { ...nothing, gears: 'new', unit: put, sideBearings: 'new', pinionBearings: 'new' };
    case 'input-float':
      return { ...nothing, box: 'input-float' };
    case 'loose-unit':
      return { ...nothing, arrives: 'loose-unit', gears: 'new', unit: put, sideBearings: 'new', pinionBearings: 'new' };
  }
}
