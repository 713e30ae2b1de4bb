import { figure } from '@hot-spline/core';
import type { Case } from '@hot-spline/core';
import { operation, run, torque, yes } from '../../frame/operation';

/** The box shaft for good, where it is the pinion. */
const gearsOn = (early: boolean) =>
  operation('box', 'gears-on', (c) => c.construction === 'transaxle' && c.pinionComesOut && c.pinionFirst === early, {
    drawing: figure('box-shaft'),
    title: 'Gears on the shaft, nut, lock tab',
    acts: ['gears-on-shaft'],
    does: [
      'Every gear, sleeve and washer in its order; what is pressed is warmed. Nut to torque, run-out, the tab last.',
    ],
    tools: ['press', 'heat', 'torque-wrench', 'v-blocks'],
    after: early ? ['inspect'] : ['gate-a', 'carrier-again'],
    behind: early ? null : 'A',
    returns: [
      { part: 'Pinion shaft', count: 1 },
      { part: 'Gears of the pinion shaft' },
      { part: 'Bearing plate and its shims' },
      { part: 'Shaft nut', count: 1 },
    ],
    records: [torque('nut', 'Shaft nut')],
    pass: 'Order as on the sheet, tab bent last.',
    fails: 'One over or missing: apart again.',
    caution: 'Hot gears, loaded press: gloves and face shield.',
    minutes: 60,
  });

/** A box that is opened with the axle. */
const boxSteps = (when: (c: Case) => boolean) =>
  [
    operation('box', 'synchro', (c) => c.box === 'synchro' && when(c), {
      drawing: figure('synchro'),
      title: 'Synchro gears',
      does: [
        'Anchor blocks, energisers, ring, clip; a worn clip is turned over. Firm drag, no play of the hub on its spline.',
      ],
      tools: ['feeler'],
      after: ['inspect'],
      records: [yes('drag', 'Ring turns with firm drag'), yes('clip', 'Clip in its groove')],
      pass: 'Firm drag, clip in its groove.',
      fails: 'Play of the hub: hub or shaft new.',
      place: { sheet: 'box', tab: 'synchro' },
      minutes: 60,
    }),
    operation(
      'box',
      'box-shafts',
      (c) =>
        c.box !== 'stays' &&
        c.box !== 'input-float' &&
        !(c.construction === 'transaxle' && c.pinionComesOut) &&
        when(c),
      {
        drawing: figure('box-shaft'),
        title: 'Shafts',
        does: [
          'Gears in order: small to large runs opposite on the other shaft. Closed cage face as specified.',
          'Nut to its torque; run-out on the bearing seats, after the torque. Lock tab last.',
        ],
        tools: ['v-blocks', 'indicator', 'torque-wrench', 'heat'],
        after: ['synchro', 'inspect'],
        records: [
          torque('nut', 'Shaft nut'),
          {
            id: 'run-out',
            label: 'Run-out at the bearing seats',
            of: 'number',
            quantity: 'length',
            scale: 'small',
            range: { min: 0, max: 5, unit: 'mm' },
            pass: { atMost: 0.08, from: '0.08 mm, a guard of ours: its builder’s sheet wins' },
          },
        ],
        pass: 'Below 0.08 mm after the torque (ours), or as its builder says.',
        fails: 'Loosen, tap, again.',
        place: { sheet: 'box', tab: 'steps' },
        minutes: 60,
      },
    ),
    operation('box', 'drum', (c) => (c.box === 'sequential' || c.box === 'dog') && when(c), {
      drawing: figure('drum'),
      title: 'Gear pairs, hubs, forks, drum',
      does: [
        'Pair by place, spacer or dog gap; a hub and a fork for two gears.',
        'Forks, then selector shaft, then drum. One step at a time through all gears and back.',
      ],
      tools: ['feeler'],
      after: ['box-shafts', 'gears-on'],
      records: [yes('through', 'All gears and back, neutral between, one engaged')],
      pass: 'One engaged at a time, neutral between.',
      fails: 'Dog on dog: turn the shaft and try again.',
      place: { sheet: 'box', tab: 'drum' },
      minutes: 60,
    }),
  ] as const;
/** The one whose shaft is the pinion waits until its depth is settled. */
const ownBox = ({ construction }: Case): boolean => construction === 'transaxle';

/** Boxes: common practice, no published source. */
export const boxWork = [
  run(
    'box',
    boxSteps((c) => !ownBox(c)),
  ),
  run('pinion-first', [gearsOn(true)], 'seal-flange'),
  run('final', [gearsOn(false)], 'seal-flange'),
  run('own-box', boxSteps(ownBox)),
  run('box-close', [
    operation('box', 'input-float', (c) => c.box !== 'stays', {
      drawing: figure('end-float'),
      title: 'End float of the input',
      answers: ['float'],
      does: [
        'Oil guide seated in its pocket, stop ring in place. Two opposite case bolts snug, other shaft left out.',
        'Pull against the spring, and again.',
      ],
      tools: ['indicator'],
      after: ['box-shafts', 'drum', 'carrier-final', 'gate-a'],
      closedBy: 'cover',
      records: [
        yes('guide', 'Oil guide seated'),
        {
          id: 'float',
          label: 'End float',
          of: 'number',
          quantity: 'length',
          scale: 'small',
          range: { min: 0, max: 5, unit: 'mm' },
        },
        {
          id: 'shim',
          label: 'Shim in it',
          of: 'number',
          quantity: 'length',
          scale: 'small',
          range: { min: 0, max: 20, unit: 'mm' },
        },
        {
          id: 'again',
          label: 'End float, read again',
          of: 'number',
          quantity: 'length',
          scale: 'small',
          range: { min: 0, max: 5, unit: 'mm' },
        },
      ],
      pass: 'In the band of the box’s sheet; straight-cut boxes have their builder’s.',
      fails: 'New shim = old + measured − wanted.',
      place: { sheet: 'box', tab: 'float' },
      minutes: 30,
    }),
  ]),
] as const;
