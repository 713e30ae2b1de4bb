import { section } from '@hot-spline/core';
import { operation, run } from '../frame/operation';

/** Common practice, no published source. */
export const inspectSteps = [
  run(
    'get-in',
    [
      operation('in', 'inspect', (c) => c.opened, {
        drawing: section(['ring', 'pinion', 'head-bearing', 'tail-bearing', 'side-bearing-left', 'side-bearing-right']),
        title: 'Clean, inspect, decide',
        does: [
          'Races, gears, cross pin, splines, seal lips, caps, case, holes, flange: each with a finding, and a photo where there is one.',
          'Run on, replace, or a donor part with its own findings: with days and price.',
        ],
        tools: ['washer-tank', 'light', 'camera'],
        after: ['measure-shims', 'bearings-off'],
        pass: 'Every part is decided.',
        fails: 'A pitted race: all bearings.',
        place: { sheet: 'inspect' },
        minutes: 60,
      }),
    ],
    'measure-shims',
  ),
] as const;
