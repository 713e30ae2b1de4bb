import { figure } from '@hot-spline/core';
import type { Case, Phase } from '@hot-spline/core';
import { count, operation, run, text, yes } from '../frame/operation';

/** Counted on the set that came, or where the mesh can be seen. */
const countTeeth = (phase: Phase, when: (c: Case) => boolean) =>
  operation(
    phase,
    'count-teeth',
    (c) => c.opened && when(c),
    (c) => ({
      drawing: figure('teeth'),
      title: c.newGears ? 'Count teeth of the new set' : 'Count teeth',
      does: [
        'Count ring and pinion against a paint mark; a tag or option code is no proof.',
        ...(c.newGears ? ['Read the match number on both of the pair.'] : []),
      ],
      tools: ['paint'],
      after: c.newGears ? ['arrival'] : ['carrier-out'],
      records: [
        count('ring', c.newGears ? 'Ring teeth counted, new set' : 'Ring teeth counted', 'ring-teeth'),
        count('pinion', c.newGears ? 'Pinion teeth counted, new set' : 'Pinion teeth counted', 'pinion-teeth'),
        ...(c.newGears && c.mesh ? [yes('match', 'Match numbers of the new pair agree')] : []),
      ],
      pass: 'The quotient is the ratio that was ordered, and the pair’s numbers agree.',
      fails: c.newGears
        ? 'Return the set.'
        : 'The spec of the axle is another one: say it on Brief before anything is ordered.',
      place: { sheet: 'gearing', tab: 'speed' },
      minutes: 10,
    }),
  );

/** What is known of the axle before anything is ordered: common practice, no published source. */
export const identitySteps = [
  run(
    'decide',
    [
      operation('decide', 'identify', (c) => c.opened, {
        drawing: figure('tag'),
        title: 'Identify the axle',
        does: [
          'Cover outline and bolt count, ring diameter, generation, front or rear, high or low pinion.',
          'Spline counts, what holds the shafts, ring bolted or welded to its carrier.',
          'Marks of earlier people: somebody may have changed it.',
        ],
        tools: ['calliper', 'light'],
        after: ['brief'],
        records: [text('variant', 'Variant, and earlier people’s marks')],
        pass: 'It matches a spec of the shop.',
        fails: 'Strip before ordering.',
        place: { sheet: 'brief', tab: 'axle' },
        minutes: 20,
      }),
      operation(
        'decide',
        'ratio-closed',
        (c) => (c.newGears || c.newCarrier) && c.whole && c.mesh && c.construction !== 'transaxle',
        {
          drawing: figure('turns'),
          title: 'Ratio by turns, while it is closed',
          does: [
            'Both wheels off the ground, gearbox in neutral; a mark on prop shaft and tyres.',
            'Turned until a wheel is round, all turns counted; ten tell more than one. One wheel may be held; with a spool or a closed locker both go round.',
          ],
          tools: ['stands', 'paint'],
          after: ['identify'],
          closedBy: 'carrier-out',
          pass: 'One tooth pair that the axle takes lies in it.',
          fails: 'Several lie in it: more turns. None: a mark was missed, or somebody was here before.',
          caution: 'On stands, wheels chocked that stay down; nobody turns a wheel under power.',
          place: { sheet: 'brief', tab: 'axle', fields: ['turns-prop', 'turns-'] },
          minutes: 10,
        },
      ),
    ],
    'brief',
  ),
  run('decide', [countTeeth('decide', ({ newGears }) => newGears)], 'arrival'),
  run('get-in', [countTeeth('in', ({ newGears }) => !newGears)], 'carrier-out'),
] as const;
