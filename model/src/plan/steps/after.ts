import {
  coverFirst,
  hasCover,
  ownRetainer,
  seenThroughCover,
  type Case,
  figure,
  section,
  undrawn,
} from '@hot-spline/core';
import { always, choice, count, operation, remedied, run, text, torque, yes, type Piece } from '../../frame/operation';

const plugs = (c: Case): readonly Piece[] => [
  { part: 'Fill plug', count: 1 },
  ...(seenThroughCover(c) ? [] : [{ part: 'Drain plug', count: 1 }]),
];

const coverOn = (when: (c: Case) => boolean) =>
  operation(
    'close',
    'cover',
    (c) => c.opened && c.construction !== 'drop-out' && when(c),
    (c) => ({
      shows: ['sealantOpen'],
      drawing: section(['cover']),
      title: c.mesh ? 'Cover on' : 'Inverter side on',
      acts: ['cover'],
      does: [
        'Count the trays first: what came out is in again.',
        c.mesh
          ? 'Faces clean and dry. Sealant until it skins, then crosswise to torque.'
          : 'O-rings between oil and inverter clean. Plugs on before the cover.',
      ],
      tools: ['torque-wrench', 'sealant-gun'],
      parts: ['sealant'],
      after: [
        'gate-b',
        ...(coverFirst(c) ? [] : (['shafts-in'] as const)),
        'locker-line',
        'final-readings',
        'float-final',
        'input-float',
      ],
      behind: 'B',
      returns: [
        ...(hasCover(c) ? [{ part: 'Cover bolts' }] : []),
        ...(c.mesh ? [] : [{ part: 'Inverter-side bolts' }]),
      ],
      records: [
        remedied(
          torque('cover', 'Cover bolts', 'coverTorque'),
          'All loosened crosswise and torqued again; on sealant that has skinned the face is cleaned first.',
        ),
        yes('trays', 'Nothing is left over that belongs inside'),
      ],
      pass: 'Nothing over, torque crosswise.',
      fails: 'A part over: open again.',
      minutes: 25,
      waitsHours: 1,
    }),
  );

/** Closing, filling, handing over: common practice, no published source. */
export const afterSteps = [
  run('close', [
    operation(
      'close',
      'close-case',
      (c) => !c.mesh && c.opened,
      (c) => ({
        shows: ['sealantOpen'],
        drawing: section(['case-bolts', 'carrier']),
        title: 'Close the electric unit',
        does: [
          'Bearing sizes by side. Shim in. Pump drive engaged: it is plastic. A loose bearing is held with grease.',
          'Cable through, split ring. Bolts finger tight until the motor-side bearing is home and its ring is in; then all.',
          'Hidden and inverter-side bolts counted. O-rings clean and greased. Rotor sensor warmed, tapped home: no spare to be had.',
        ],
        tools: ['torque-wrench', 'heat'],
        parts: ['seals'],
        after: ['gate-a', 'carrier-bearings', 'ring-bolts', 'locker-rings', 'close-plate', 'close-carrier', 'run-out'],
        behind: c.floatOpen ? 'A' : null,
        returns: [
          { part: 'Carrier', count: 1 },
          { part: 'The one shim', count: 1 },
          ...(c.pinionComesOut ? [{ part: 'Layshaft', count: 1 }] : []),
          { part: 'Case bolts' },
          { part: 'Split ring', count: 1 },
        ],
        records: [
          text('sizes', 'Bearing sizes, left and right'),
          count('bolts', 'Case bolts counted in'),
          yes('pump', 'Pump drive felt to engage'),
        ],
        pass: 'Counts agree.',
        fails: 'A bolt over or missing: open again.',
        caution: 'High voltage stays off.',
        minutes: 60,
      }),
    ),
    operation('close', 'gate-b', (c) => c.opened || c.box === 'input-float', {
      drawing: section(),
      title: 'Gate B',
      acts: ['gate-b'],
      does: ['Final readings in spec, by name.'],
      after: ['gate-a', 'final-readings', 'side-preload', 'total-torque', 'float-final', 'locker-line', 'input-float'],
      gate: 'B',
      pass: 'Signed.',
      fails: 'The cover stays off.',
      place: { sheet: 'gates' },
      minutes: 5,
    }),
    coverOn(coverFirst),
    operation('close', 'housing-in', (c) => c.opened && c.whole && c.construction === 'drop-out', {
      shows: ['sealantOpen'],
      drawing: figure('sling'),
      title: 'Carrier housing into the axle',
      acts: ['housing-in'],
      does: [
        'Count the trays first: what came out is in again.',
        'Faces clean and dry, sealant until it skins; over the studs straight in, then crosswise to torque.',
      ],
      tools: ['torque-wrench', 'sealant-gun'],
      parts: ['sealant'],
      after: ['gate-b', 'final-readings', 'locker-line'],
      behind: 'B',
      returns: [{ part: 'Carrier housing', count: 1 }, { part: 'Carrier housing fasteners' }],
      records: [
        torque('cover', 'Housing fasteners', 'coverTorque'),
        yes('trays', 'Nothing is left over that belongs inside'),
      ],
      pass: 'Crosswise to torque, trays empty but for what goes on from outside.',
      fails: 'It does not go home: nothing between the faces, no shaft in the way.',
      caution: 'It is heavy and off balance: two people or a hoist.',
      minutes: 30,
      waitsHours: 1,
    }),
    operation(
      'close',
      'unit-in',
      ({ unitOut }) => unitOut,
      (c) => ({
        drawing: figure('sling'),
        title: 'Unit into the car',
        does: ['Up on the jack, mounts by place and finger tight, then to torque at ride height.'],
        tools: ['torque-wrench'],
        after: ['gate-b', ...(coverFirst(c) ? (['cover'] as const) : [])],
        returns: [{ part: c.mesh ? 'Unit' : 'Drive unit', count: 1 }, { part: 'Mount bolts' }],
        records: [torque('mounts', 'Mount bolts')],
        pass: 'Mounts at torque, nothing pinched.',
        fails: 'A mount under stress: loosen all, and again.',
        caution: 'Nobody under it until the mounts hold it.',
        minutes: 60,
      }),
    ),
    coverOn((c) => !coverFirst(c)),
    operation(
      'close',
      'outside-back',
      ({ opened, whole }) => opened && whole,
      (c) => ({
        drawing: figure('lines'),
        title: 'Lines, plugs and sensors back',
        does: [
          'By their marks; each clicks or is torqued, none under tension.',
          ...(c.mesh
            ? []
            : ['Coolant filled and bled. High voltage back on last of all, by somebody licensed for it.']),
        ],
        caution: c.mesh
          ? null
          : 'High voltage: only after every cover is on and insulation was measured, by licensed practice.',
        tools: ['spanners'],
        after: ['cover', 'housing-in', 'unit-in', 'shafts-in'],
        returns: [{ part: 'Lines and plugs' }],
        records: [yes('all', 'All back, by their marks')],
        pass: 'None is over.',
        fails: 'One over: which is dead without it?',
        minutes: 15,
      }),
    ),
    operation('close', 'prop-on', ({ propOff }) => propOff, {
      drawing: section(['flange'], 'match-marks'),
      title: 'Prop shaft on',
      does: ['By its mark.'],
      tools: ['torque-wrench'],
      after: ['cover', 'housing-in', 'unit-in', 'pinion-preload'],
      returns: [{ part: 'Prop shaft', count: 1 }, { part: 'Prop shaft bolts' }],
      records: [torque('prop', 'Prop shaft bolts')],
      pass: 'Marks line up.',
      fails: 'Off, and by its mark.',
      minutes: 15,
    }),
    operation(
      'close',
      'wheel-ends-on',
      ({ whole, opened, inCar }) => whole && (opened || inCar),
      (c) => ({
        drawing: figure('wheel-end'),
        title: 'Wheel ends, brakes, wheels',
        shows: c.opened && c.wheelBearing === 'in-hub' ? ['wheelEndTorque'] : [],
        does: [
          ...(c.wheelBearing === 'in-hub'
            ? ['Hub on, its nut as the sheet says, turned while it is set, locked; no play, and it turns free.']
            : []),
          ...(ownRetainer(c) ? ['Retainer nuts crosswise, through the hole of the flange.'] : []),
          ...(c.brake === 'drum'
            ? ['Drum on, shoes set until they just touch, hand brake tried.']
            : ['Callipers on, their bolts to torque.']),
          'Studs pressed, not hammered. Wheels torqued on the ground, and once more after driving.',
        ],
        tools: ['torque-wrench'],
        after: ['shafts-in', 'cover'],
        returns: [
          ...(!c.opened
            ? []
            : c.brake === 'drum'
              ? [{ part: 'Brake drums', count: 2 }]
              : [{ part: 'Brake callipers', count: 2 }, { part: 'Brake bolts' }]),
          ...(c.opened && c.brake === 'disc' ? [{ part: 'Brake discs', count: 2 }] : []),
          ...(c.opened && ownRetainer(c) ? [{ part: 'Retainer nuts' }] : []),
          ...(c.opened && c.wheelBearing === 'in-hub'
            ? [{ part: 'Hubs', count: 2 }, { part: 'Hub nuts and locks' }]
            : []),
          ...(c.opened && c.retention === 'unit-bearing' ? [{ part: 'Axle nuts', count: 2 }] : []),
          ...(c.inCar ? [{ part: 'Wheels', count: 2 }, { part: 'Wheel nuts' }] : []),
        ],
        records: [
          torque('wheels', 'Wheel nuts'),
          remedied(
            choice('studs', 'Studs', ['good', 'pressed in new', 'loose or stripped'], ['loose or stripped']),
            'Another stud, pressed; a stud that turns in its hole takes the flange with it.',
          ),
          ...(c.wheelBearing !== null
            ? [
                remedied(
                  choice('play', 'Wheel bearings, by hand', ['no play', 'play', 'rough'], ['play', 'rough']),
                  'Off again: the bearing is set or replaced before it drives.',
                ),
              ]
            : []),
          yes('brakes', 'Brakes pump up and hold'),
        ],
        pass: 'Torqued, and the brakes hold.',
        fails: 'It does not leave the stands.',
        caution: 'Brake and wheel work by local rules and licensed practice.',
        minutes: 45,
      }),
    ),
    operation(
      'close',
      'fill',
      ({ whole }) => whole,
      (c) => ({
        drawing: figure('plugs'),
        title: c.opened ? 'Fill, or label it dry' : 'Fill the box',
        shows: ['fluid', 'volume', ...(c.unitKind === 'plate' ? ['additive'] : [])],
        acts: ['fill'],
        does: [
          ...(c.unitKind === 'plate'
            ? ['Additive first. Then oil to the grade, until it weeps from the level hole.']
            : ['Oil to the grade, until it weeps from the level hole.']),
          'Not filled now: oil on the bearings, and a label that says so.',
        ],
        tools: ['pump'],
        parts: ['oil', ...(c.unitKind === 'plate' ? ['additive'] : [])],
        after: ['cover', 'housing-in', 'unit-in', 'shafts-in'],
        returns: c.opened ? plugs(c) : [],
        records: [
          choice('filled', 'Filled', ['filled to the level', 'dry: labelled “no oil in it”'], []),
          text('grade', 'Oil, as poured'),
          {
            id: 'volume',
            label: 'Volume',
            of: 'number',
            quantity: 'volume',
            scale: 'fill',
            range: { min: 0, max: 50, unit: 'l' },
          },
          ...(c.unitKind === 'plate'
            ? [
                {
                  id: 'additive',
                  label: 'Additive',
                  of: 'number',
                  quantity: 'volume',
                  scale: 'dose',
                  range: { min: 0, max: 5, unit: 'l' },
                } as const,
              ]
            : []),
        ],
        pass: 'It weeps from the level hole, or the label is on.',
        fails: 'Handed over dry and forgotten it is ruined.',
        place: { sheet: 'close' },
        minutes: 15,
      }),
    ),
    operation(
      'close',
      'dry-label',
      ({ whole, opened }) => !whole && opened,
      (c) => ({
        drawing: figure('tag'),
        title: 'Oil it, turn it, label it dry',
        acts: ['dry-label'],
        does: [
          'Oil on bearings and gears, turned by the flange; openings closed, flanges and seals stay on.',
          'A label that cannot be overlooked: no oil in it. A letter with what was set, and what to do before it drives.',
        ],
        tools: ['pump'],
        parts: ['oil'],
        after: ['cover', 'gate-b'],
        returns: c.arrives === 'parts' ? [] : plugs(c),
        records: [yes('label', 'Label on, openings closed')],
        pass: 'The label is on, and the letter with it.',
        fails: 'Handed over dry and unmarked it is ruined.',
        minutes: 20,
      }),
    ),
    operation('close', 'recalibrate', ({ newGears, whole }) => newGears && whole, {
      drawing: undrawn('Done in the car’s own electronics, by its sheet.'),
      title: 'Recalibrate',
      does: [
        'Ratio and tyre into the controller before the drive: without it the box shifts wrongly and the speed reads wrong.',
      ],
      after: ['choose'],
      records: [yes('entered', 'Entered')],
      pass: 'Entered, and the speed agrees.',
      fails: 'No drive before it.',
      place: { sheet: 'close' },
      minutes: 15,
    }),
    operation('close', 'hand-over', always, {
      drawing: undrawn('Papers and a talk: the sheets are the drawing.'),
      title: 'Hand over',
      does: ['Build number on the unit, old parts, papers, what the driver must do and when.'],
      after: ['run-in', 'fill', 'dry-label'],
      records: [text('to', 'Handed to')],
      pass: 'Papers and old parts handed over, signed.',
      fails: '',
      place: { sheet: 'papers' },
      minutes: 15,
    }),
  ]),
] as const;
