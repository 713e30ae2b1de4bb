import { figure } from '@hot-spline/core';
import { operation, run } from '../frame/operation';

/** Common practice, no published source. */
export const runInSteps = [
  run(
    'close',
    [
      operation(
        'close',
        'run-in',
        ({ whole }) => whole,
        (c) => ({
          drawing: figure('heat-cycles'),
          title: 'Run in and recheck',
          acts: ['run-in'],
          does: [
            'Short trips or heat cycles, as planned, each cooled down fully; gently until its distance.',
            ...(c.unitKind === 'plate' ? ['Slow figures of eight wet the plates.'] : []),
            'Witness marks, leaks, noise.',
          ],
          tools: ['thermometer', 'light'],
          after: ['fill', 'recalibrate', 'wheel-ends-on', 'prop-on', 'outside-back'],
          pass: 'Trips logged, temperature below its alarm, rechecks done.',
          fails: 'A rising whine: stop and look inside.',
          place: { sheet: 'close', tab: 'run-in' },
          minutes: 60,
          waitsHours: 24,
        }),
      ),
    ],
    'recalibrate',
  ),
] as const;
