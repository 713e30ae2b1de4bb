import { crushes, type Case, figure, section } from '@hot-spline/core';
import { choice, operation, run, yes } from '../frame/operation';

/** Pinion and its preload for good: before the mesh is tried where nothing of it can be undone, else behind Gate A. */
function pinionForGood(early: boolean) {
  const when = (c: Case): boolean => c.pinionFirst === early;
  return [
    operation(
      'final',
      'seal-flange',
      (c) => c.mesh && c.pinionComesOut && c.construction !== 'transaxle' && when(c),
      (c) => ({
        drawing: section(['seal', 'flange', 'spacer', 'pinion-nut']),
        title: 'Spacer, tail bearing, seal, flange, nut',
        shows: ['pinionNutTorque', 'compoundOpen'],
        acts: ['seal-in'],
        does: [
          'Trial bearing, spacer and nut off; new spacer, oiled tail bearing, seal, flange, new nut.',
          'Clean with what leaves no oil. Compound by place: seats, seal rim, spline cavity, nut threads.',
          'Started means finished before it sets.',
        ],
        tools: ['washer-tank', 'stone', 'race-drivers', 'flange-holder'],
        parts: ['pinion-seal', 'pinion-nut', 'compound'],
        after: [
          'pinion-bearing',
          'cup-home',
          ...(early ? (['races-in'] as const) : (['gate-a', 'carrier-again'] as const)),
        ],
        behind: early ? null : 'A',
        returns: [
          { part: 'Pinion', count: 1 },
          { part: 'Spacer', count: 1 },
          ...(c.depthOpen ? [] : [{ part: 'Pinion shims' }, { part: 'Pinion bearings', count: 2 }]),
          { part: 'Pinion seal', count: 1 },
          { part: 'Flange', count: 1 },
          { part: 'Pinion nut', count: 1 },
        ],
        records: [
          // A race that spins eats its shim; oil creeps along splines that are dry (common practice).
          ...(
            [
              ['seats', 'Seats of the races'],
              ['rim', 'Rim of the seal'],
              ['cavity', 'Splines of the flange'],
              ['threads', 'Threads of the nut'],
            ] as const
          ).map(([id, label]) =>
            choice(id, label, ['retaining compound', 'sealant', 'threadlocker', 'none needed'], []),
          ),
          yes('face', 'Flange face smooth where the seal runs'),
        ],
        pass: 'Finished before it sets; splines sealed.',
        fails: 'Stopped: clean it all and begin again.',
        minutes: 25,
      }),
    ),
    operation('final', 'seal-drag', (c) => c.mesh && c.pinionComesOut && crushes(c) && when(c), {
      drawing: figure('turning'),
      title: 'Drag of the seal alone',
      does: [
        'The nut run on until the bearings still have play: turned steadily, what drags is the seal alone.',
        'It is taken off every reading from here on: once the spacer is crushed it can’t be read any more.',
      ],
      tools: ['turning-wrench'],
      after: ['seal-flange'],
      closedBy: 'pinion-preload',
      pass: 'Read while there is play.',
      fails: 'Tight already: the seal out again, or both readings with it in are compared and no more.',
      place: { sheet: 'preload', tab: 'pinion', fields: ['seal-drag'] },
      minutes: 5,
    }),
    operation(
      'final',
      'pinion-preload',
      (c) => c.mesh && c.pinionComesOut && when(c),
      (c) => ({
        drawing: figure('spacer'),
        title: c.depthShim === 'support' ? 'Pinion preload, the unit in a vice' : 'Pinion preload',
        acts: crushes(c) ? ['crush', 'pinion-preload-read'] : ['pinion-preload-read'],
        answers: ['pinion-preload'],
        does:
          c.depthShim === 'box-shaft'
            ? ['By its nut and its plate, no spacer that crushes: nut at torque, turned several times, oiled.']
            : crushes(c)
              ? [
                  c.depthShim === 'support'
                    ? 'The first of the crush by the nut, or in a press where the unit fits one. Then by the steps that Preload gives, oiled, read after each.'
                    : 'The first of the crush by the nut, with a long holder. Then by the steps that Preload gives, oiled, read after each.',
                  'It rises late and then fast: a reading that stands still says nothing of the next.',
                ]
              : ['Shims under the spacer, nut to its full torque, read oiled. More shim, less torque.'],
        tools: ['turning-wrench', 'flange-holder', ...(crushes(c) ? [] : (['torque-wrench'] as const))],
        parts: crushes(c) ? ['collapsible-spacers'] : c.spacer === 'solid' ? ['preload-shims'] : [],
        after: ['seal-flange', 'seal-drag', 'gears-on', 'pinion-bearing'],
        behind: early ? null : 'A',
        asks: ['pinionTorqueNew', ...(c.spacer === 'solid' ? ['pinionNutTorque'] : [])],
        pass: 'In the sheet’s band, oiled, turning steadily.',
        fails: crushes(c) ? 'Over: a new spacer. The nut is never backed off.' : 'Another shim under the spacer.',
        caution: 'The nut takes a great torque: a holder that can’t slip.',
        place: { sheet: 'preload', tab: 'pinion', fields: ['pinion-torque', 'state-oil'] },
        minutes: 45,
      }),
    ),
  ] as const;
}

/** What turning tells, of the pinion, the seal and the carrier: common practice, no published source. */
export const preloadSteps = [
  run(
    'case',
    [
      operation('case', 'pinion-drag', ({ dragRead }) => dragRead, {
        drawing: figure('turning'),
        title: 'Drag of the pinion that stays',
        answers: ['drag-compared'],
        does: [
          'Carrier out: oiled, several turns, steady. The pinion alone: new side bearings and seals are not in it.',
          'Against what its sheet says of bearings that have run, and what it was before.',
        ],
        tools: ['turning-wrench'],
        after: ['carrier-out'],
        closedBy: 'carrier-final',
        records: [
          {
            id: 'drag',
            label: 'Turning torque of the pinion alone',
            sheet: 'pinionTorqueUsed',
            of: 'number',
            quantity: 'torque',
            scale: 'turning',
            range: { min: 0, max: 100, unit: 'N·m' },
          },
        ],
        pass: 'Even all round, and no less than bearings that have run.',
        fails: 'Rough or gone: the pinion comes out after all, and that is said among the facts of the job.',
        minutes: 10,
      }),
    ],
    'inner-seals',
  ),
  run('pinion-first', pinionForGood(true), 'pinion-bearing'),
  run('final', pinionForGood(false), 'pinion-bearing'),
  run(
    'final-close',
    [
      operation(
        'final',
        'side-preload',
        ({ positionOpen }) => positionOpen,
        (c) => ({
          drawing: section(['side-bearing-left', 'side-bearing-right']),
          title: 'Side preload',
          shows: ['carrierPreload', 'totalTorque', 'carrierTorque', 'caseGrowth'],
          answers: ['side-preload'],
          does: [
            c.ringPlacedBy === 'adjusters'
              ? 'As the adjusters were run up by their sequence; or growth of the case across the caps, total less pinion, or the carrier alone.'
              : 'Shims beyond zero play; or growth of the case across the caps, total less pinion, or the carrier alone.',
          ],
          tools: ['indicator', 'turning-wrench'],
          after: ['carrier-final'],
          pass: 'In the band of its method.',
          fails: 'Both sides by the same amount: backlash stays.',
          place: { sheet: 'preload', tab: 'side', fields: ['side-'] },
          minutes: 15,
        }),
      ),
      operation('final', 'total-torque', (c) => c.positionOpen && (c.propOff || !c.inCar), {
        drawing: figure('turning'),
        title: 'Total turning torque',
        shows: ['totalTorque'],
        does: ['Carrier in, everything oiled, shafts and prop shaft off: several turns, steady.'],
        tools: ['turning-wrench'],
        after: ['carrier-final', 'pinion-preload', 'side-preload'],
        closedBy: 'shafts-in',
        pass: 'In the band of the sheet, where it has one.',
        fails: 'Over: side preload, a seal, a bearing that is cocked. Below: side preload.',
        place: { sheet: 'preload', tab: 'pinion', fields: ['total-torque'] },
        minutes: 5,
      }),
    ],
    'carrier-final',
  ),
] as const;

/** What its steps buy. */
export const preloadParts = {
  'pinion-seal': { name: 'Pinion seal', count: 2, mind: 'One extra.' },
  'pinion-nut': { name: 'Pinion nut', count: 1, mind: 'New; the old one is for trying.' },
  compound: { name: 'Retaining compound and sealant for splines', count: 1, mind: 'By place, in date.' },
  'collapsible-spacers': { name: 'Collapsible spacers', count: 2, mind: 'Two: an overshoot eats one.' },
  'preload-shims': { name: 'Shims for the solid spacer', count: 1, mind: 'A set.' },
} as const;
