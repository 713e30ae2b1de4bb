import type { Job } from '@hot-spline/core';

/** What a job is called where it is chosen or looked for, and what it is. */
export const JOB_WORDS: Readonly<Record<Job, { readonly label: string; readonly more: string }>> = {
  'ratio-swap': { label: 'Gears', more: 'Ring and pinion new, the unit stays.' },
  'unit-change': { label: 'Unit', more: 'Another unit or carrier on the gears that are in.' },
  'full-build': { label: 'Gears and unit', more: 'All of it new.' },
  overhaul: { label: 'Overhaul', more: 'Unit, side bearings, seals; gears and pinion stay.' },
  plates: { label: 'Plates only', more: 'The unit’s own plates; nothing of the mesh is disturbed.' },
  insert: { label: 'Friction insert', more: 'Plates and springs between the gears of an open one.' },
  locker: { label: 'Locker', more: 'A selectable locker on the gears that are in.' },
  'input-float': {
    label: 'Input float only',
    more: 'End float of a gearbox’s input shaft; the axle stays shut.',
  },
  'loose-unit': { label: 'Loose unit', more: 'Gears and unit set up on the bench, handed over dry.' },
};
