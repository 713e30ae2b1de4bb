import { gateAsks } from '@hot-spline/core';
import { orderOfWork } from '../assembly/steps';
import { usualFacts, type Told } from './facts';

/** Twelve typical jobs, as docs/work.md prints their orders. */
const JOBS: readonly (readonly [name: string, told: Told])[] = [
  ['Gears; integral axle, outboard shims, c-clips', { job: 'ratio-swap' }],
  [
    'Gears; integral axle, inboard shims, depth shim behind the cup',
    { job: 'ratio-swap', construction: 'integral-inboard', depthShim: 'cup', retention: 'flange' },
  ],
  ['Gears and unit; drop-out, collapsible spacer', { construction: 'drop-out', retention: 'flange' }],
  ['Gears; transaxle', { job: 'ratio-swap', construction: 'transaxle', retention: 'stub', spacer: 'none' }],
  ['Unit, closed, on reused gears; integral axle', { job: 'unit-change', unit: 'new-closed', retention: 'flange' }],
  ['Plates only; integral axle', { job: 'plates', retention: 'flange' }],
  ['Overhaul; drop-out', { job: 'overhaul', construction: 'drop-out', retention: 'flange' }],
  ['Insert; independent unit', { job: 'insert', unitKind: 'insert', construction: 'independent', retention: 'stub' }],
  ['Locker; integral axle', { job: 'locker', unitKind: 'locker', retention: 'flange' }],
  [
    'Unit, the ring moves over; electric',
    { job: 'unit-change', construction: 'electric-reduction', retention: 'stub', spacer: 'none' },
  ],
  ['Loose drop-out unit, solid spacer', { job: 'loose-unit', construction: 'drop-out', spacer: 'solid' }],
  ['Input float only', { job: 'input-float', retention: 'flange' }],
];

/** The orders as they stand in docs/work.md: what waits for Gate A is in italics. */
export function printedOrders(): string {
  return JOBS.map(([name, told]) => {
    const facts = usualFacts(told);
    const { A, B } = gateAsks(facts);
    const steps = orderOfWork(facts).map(({ title, behind, gate }) =>
      gate !== null ? `**${title}**` : behind === 'A' ? `_${title}_` : title,
    );
    const asks = `Gate A: ${A.join(', ') || 'none, nothing waits'}. Gate B: ${B.join(', ')}.`;
    return `## ${name}\n\n${steps.join(' · ')}\n\n${asks}\n`;
  }).join('\n');
}
