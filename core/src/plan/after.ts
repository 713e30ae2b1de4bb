import { always, choice, count, operation, text, torque, yes, type Recipe } from './operation';
import { hasCover } from './situation';

/** Closing, filling, running in, handing over: common practice, no published source. */
export const CLOSE: readonly Recipe[] = [
  operation(
    'close',
    'close-case',
    (c) => !c.mesh,
    (c) => ({
      title: 'Close the electric unit',
      does: [
        'Bearing sizes by side. Shim in. Pump drive engaged: it is plastic. A loose bearing is held with grease.',
        'Cable through, split ring. Bolts finger tight until the motor-side bearing is home and its ring is in; then all.',
        'Hidden and inverter-side bolts counted. O-rings clean and greased. Rotor sensor warmed, tapped home: no spare to be had.',
      ],
      tools: ['torque-wrench', 'heat'],
      parts: ['seals'],
      after: ['gate-a'],
      behind: 'A',
      returns: [
        { part: 'Carrier', count: 1 },
        { part: 'The one shim', count: 1 },
        ...(c.newSideBearings ? [{ part: 'Side bearings', count: 2 }] : []),
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
  operation('close', 'float-final', (c) => !c.mesh, {
    title: 'End float, case bolted up',
    does: ['Pulled and pushed against the indicator; tap it home, and again.'],
    tools: ['indicator'],
    after: ['close-case'],
    closedBy: 'cover',
    pass: 'In the sheet’s band.',
    fails: 'New shim = old + measured − wanted: open again.',
    place: { sheet: 'carrier' },
    minutes: 15,
  }),
  operation('close', 'gate-b', always, {
    title: 'Gate B',
    does: ['Final readings in spec, by name.'],
    after: ['final-readings', 'float-final', 'locker-line', 'input-float'],
    gate: 'B',
    pass: 'Signed.',
    fails: 'The cover stays off.',
    place: { sheet: 'gates' },
    minutes: 5,
  }),
  operation('close', 'shafts-in', always, (c) => ({
    title: 'Shafts in',
    does: {
      'c-clips': [
        'First take out the pin that only held the gears.',
        'Push in, clip, pull out, pin, its bolt with threadlocker.',
      ],
      flange: ['Shaft in over the seal, nuts through the flange.'],
      'unit-bearing': ['Shaft and hub in. The axle nut to its sheet: it sets the bearing.'],
      stub: ['Stub flange in until it clicks, or its centre bolt to torque.'],
    }[c.retention],
    tools: ['torque-wrench', ...(c.retention === 'unit-bearing' ? (['twelve-point'] as const) : [])],
    parts: ['shaft-seals'],
    after: ['gate-b'],
    closedBy: c.retention === 'c-clips' && c.mesh ? 'cover' : null,
    returns: [
      { part: 'Shafts', count: 2 },
      ...{
        'c-clips': [
          { part: 'C-clips', count: 2 },
          { part: 'Cross pin', count: 1 },
          { part: 'Cross-pin bolt', count: 1 },
        ],
        flange: [{ part: 'Shaft flange nuts' }],
        'unit-bearing': [{ part: 'Hub bolts' }, { part: 'Axle nuts', count: 2 }],
        stub: [{ part: 'Stub bolts or clips', count: 2 }],
      }[c.retention],
    ],
    asks: c.retention === 'unit-bearing' ? ['wheelEndTorque'] : [],
    records: [
      ...(c.retention === 'c-clips'
        ? [yes('pin-out', 'Pin that held the gears is out'), yes('clips', 'Both clips seen in')]
        : []),
      torque('retention', 'Retention', c.retention === 'unit-bearing' ? 'wheelEndTorque' : 'retentionTorque'),
    ],
    pass: 'Held on both sides, seal whole.',
    fails: 'A cut seal is replaced now, not after the leak.',
    minutes: 30,
  })),
  operation('close', 'cover', always, (c) => ({
    title: c.mesh ? (c.construction === 'drop-out' ? 'Carrier housing into the axle' : 'Cover on') : 'Inverter side on',
    does: [
      'Count the trays first: what came out is in again.',
      c.mesh
        ? 'Faces clean and dry. Sealant until it skins, then crosswise to torque.'
        : 'O-rings between oil and inverter clean. Plugs on before the cover.',
    ],
    tools: ['torque-wrench', 'sealant-gun'],
    parts: ['sealant'],
    after: ['gate-b', 'shafts-in', 'locker-line', 'final-readings', 'input-float'],
    behind: 'B',
    returns: [
      ...(hasCover(c) ? [{ part: 'Cover bolts' }] : []),
      { part: 'Drain plug', count: 1 },
      { part: 'Lines and plugs' },
      ...(c.construction === 'drop-out' ? [{ part: 'Carrier housing fasteners' }] : []),
      ...(c.mesh ? [] : [{ part: 'Inverter-side bolts' }]),
    ],
    records: [torque('cover', 'Cover bolts', 'coverTorque'), yes('trays', 'Trays are empty')],
    pass: 'Trays empty, torque crosswise.',
    fails: 'A part over: open again.',
    minutes: 25,
    waitsHours: 1,
  })),
  operation(
    'close',
    'prop-on',
    (c) =>
      c.mesh &&
      c.construction !== 'transaxle' &&
      (c.pinionOut || c.construction === 'drop-out' || c.construction === 'independent'),
    {
      title: 'Prop shaft on',
      does: ['By its mark.'],
      tools: ['torque-wrench'],
      after: ['cover', 'pinion-preload'],
      returns: [{ part: 'Prop shaft', count: 1 }, { part: 'Prop shaft bolts' }],
      records: [torque('prop', 'Prop shaft bolts')],
      pass: 'Marks line up.',
      fails: 'Off, and by its mark.',
      minutes: 15,
    },
  ),
  operation('close', 'wheel-ends-on', always, {
    title: 'Wheel ends, brakes, wheels',
    does: [
      'Bearings lettering outwards, studs pressed, not hammered. Wheels torqued on the ground, and once more after driving.',
    ],
    tools: ['torque-wrench'],
    after: ['shafts-in', 'cover'],
    returns: [
      { part: 'Brake callipers', count: 2 },
      { part: 'Brake bolts' },
      { part: 'Wheels', count: 2 },
      { part: 'Wheel nuts' },
    ],
    records: [torque('wheels', 'Wheel nuts'), yes('brakes', 'Brakes pump up and hold')],
    pass: 'Torqued, and the brakes hold.',
    fails: 'It does not leave the stands.',
    caution: 'Brake and wheel work by local rules and licensed practice.',
    minutes: 45,
  }),
  operation('close', 'fill', always, (c) => ({
    title: 'Fill, or label it dry',
    does: [
      ...(c.unit === 'plate'
        ? ['Additive first. Then oil to the grade, until it weeps from the level hole.']
        : ['Oil to the grade, until it weeps from the level hole.']),
      'Not filled now: oil on the bearings, and a label that says so.',
    ],
    tools: ['pump'],
    parts: ['oil', ...(c.unit === 'plate' ? ['additive'] : [])],
    after: ['cover'],
    returns: [{ part: 'Fill plug', count: 1 }],
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
      ...(c.unit === 'plate'
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
  })),
  operation('close', 'recalibrate', (c) => c.newGears, {
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
  operation('close', 'run-in', always, (c) => ({
    title: 'Run in and recheck',
    does: [
      'Short trips or heat cycles, as planned, each cooled down fully; gently until its distance.',
      ...(c.unit === 'plate' ? ['Slow figures of eight wet the plates.'] : []),
      'Witness marks, leaks, noise.',
    ],
    tools: ['thermometer', 'light'],
    after: ['fill', 'recalibrate', 'wheel-ends-on', 'prop-on'],
    pass: 'Trips logged, temperature below its alarm, rechecks done.',
    fails: 'A rising whine: stop and look inside.',
    place: { sheet: 'close', tab: 'run-in' },
    minutes: 60,
    waitsHours: 24,
  })),
  operation('close', 'hand-over', always, {
    title: 'Hand over',
    does: ['Build number on the unit, old parts, papers, what the driver must do and when.'],
    after: ['run-in', 'fill'],
    records: [text('to', 'Handed to')],
    pass: 'Papers and old parts handed over, signed.',
    fails: '',
    place: { sheet: 'papers' },
    minutes: 15,
  }),
];
