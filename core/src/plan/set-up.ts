import { carrierPieces, hasAdjusters } from './carrier';
import { choice, operation, text, torque, yes, type Recipe } from './operation';

/** The set-up loop, up to Gate A: common practice, no published source. */
export const LOOP: readonly Recipe[] = [
  operation('loop', 'start-shim', (c) => c.pinionOut, {
    title: 'Starting pinion shim',
    does: [
      'From the shim that came out, by marks, by a chain of lengths, by the chart, by gauge, or by experience.',
      'The chart is a guess until a pattern agrees.',
    ],
    after: ['measure-shims', 'races-in', 'box-shafts'],
    pass: 'It can be built from stock.',
    fails: 'Order shims of the seat.',
    place: { sheet: 'depth' },
    minutes: 15,
  }),
  operation(
    'loop',
    'pinion-trial',
    (c) => c.pinionOut,
    (c) => ({
      title: 'Pinion in for trial',
      does: [
        c.bearings === 'set-up'
          ? 'Set-up bearings: honed to slide.'
          : 'The real bearing pressed on: it comes off each round.',
        'Old nut filed free, old spacer or none. No play, and a drag that the hand feels.',
      ],
      tools: [
        ...(c.bearings === 'set-up' ? (['set-up-bearings'] as const) : (['press', 'puller'] as const)),
        'flange-holder',
        'turning-wrench',
      ],
      after: ['start-shim', 'races-in'],
      pass: 'Turns, no play, and the state is written down.',
      fails: 'Play: a little more nut.',
      place: { sheet: 'mesh' },
      minutes: 20,
    }),
  ),
  operation('loop', 'depth', (c) => c.pinionOut && c.depth === 'gauge-first', {
    title: 'Measure depth',
    does: ['Gauge, or bore diameter, cap depth and depth calliper: axis to head.'],
    tools: ['depth-gauge'],
    after: ['pinion-trial'],
    closedBy: 'trial-carrier',
    pass: 'Within the mark on the pinion.',
    fails: 'Shim by the difference.',
    place: { sheet: 'depth' },
    minutes: 15,
  }),
  operation(
    'loop',
    'trial-carrier',
    (c) => c.mesh,
    (c) => ({
      title: 'Carrier in, side preload for trial',
      does: {
        'integral-head-shim': ['Starting shims in by side, spread below the limit, caps by their marks.'],
        'integral-inboard': ['Starting shims under set-up side bearings, caps by their marks.'],
        'integral-adjusters': [
          'Ring side in to no play, the other side in; ring side back, other in until backlash is half of its band.',
          'Caps. Far side up until backlash is in its band; it only opens: too loose means begin again.',
        ],
        'drop-out': [
          'Ring side to zero backlash, then the other side notch by notch; read after each what a notch gives.',
        ],
        independent: ['Old shims in their old places, side covers, cover.'],
        transaxle: ['Old shims or rings in their old places.'],
        'electric-reduction': [],
      }[c.construction],
      tools: [
        'indicator',
        ...(c.construction === 'integral-head-shim' ? (['spreader'] as const) : []),
        ...(hasAdjusters(c) ? (['adjuster-wrench'] as const) : []),
        'torque-wrench',
      ],
      after: [
        'clearances',
        ...(c.construction === 'integral-inboard' ? [] : ['carrier-bearings']),
        'inner-seals',
        'depth',
        'pinion-trial',
        'machining',
        'measure-shims',
      ],
      asks: c.construction === 'integral-head-shim' ? ['spreadLimit'] : [],
      returns: [...carrierPieces(c)],
      pass: 'Shims or notches each side, caps and preload written down.',
      fails: 'One adjuster far in and the other far out, or a rub: stop before painting.',
      caution: 'Hold it until the second cap is on. Spreading can crack the case.',
      place: { sheet: 'carrier' },
      minutes: 30,
    }),
  ),
  operation('loop', 'run-out', (c) => c.ringOff, {
    title: 'Run-out of the ring',
    does: ['Several turns, same direction, same speed.'],
    tools: ['indicator'],
    after: ['trial-carrier'],
    pass: 'Within the limit of the sheet.',
    fails: 'More: a burr, the bolts, the flange.',
    place: { sheet: 'mesh' },
    minutes: 10,
  }),
  operation('loop', 'backlash', (c) => c.mesh, {
    title: 'Backlash',
    does: ['Indicator square to the tooth. All round, caps and side preload as they are.'],
    tools: ['indicator'],
    after: ['trial-carrier', 'run-out'],
    pass: 'In the sheet’s band, closing up counted.',
    fails: 'Too much: ring to the pinion; too little: away.',
    place: { sheet: 'mesh' },
    minutes: 15,
  }),
  operation('loop', 'pattern', (c) => c.mesh, {
    title: 'Pattern, both flanks',
    does: ['Paste on four or five teeth, brake on the ring, both directions. Photo.'],
    tools: ['paste', 'camera'],
    after: ['backlash'],
    pass: 'Centred, off all edges; a little toward the toe is fine.',
    fails: 'Depth first, then heel and toe.',
    place: { sheet: 'mesh' },
    minutes: 20,
  }),
  operation('loop', 'next-move', (c) => c.mesh, {
    title: 'Next move, until both are right',
    does: [
      'One move that is large enough to be seen teaches; then split it. After each depth move give the backlash back.',
    ],
    after: ['pattern'],
    pass: 'Backlash and pattern right together.',
    fails: 'Another round: the sheet proposes pinion shim and both sides from stock.',
    place: { sheet: 'mesh' },
    minutes: 60,
  }),
  operation('loop', 'float-trial', (c) => !c.mesh, {
    title: 'End float while tried',
    does: ['Case snug, shaft pulled and pushed against the indicator; tap it home, and again.'],
    tools: ['indicator'],
    after: ['measure-shims', 'inspect', 'close-plate', 'oil-geared', 'locker-parts', 'fit-insert'],
    pass: 'In the sheet’s band.',
    fails: 'New shim = old + measured − wanted.',
    place: { sheet: 'carrier' },
    minutes: 20,
  }),
  operation(
    'loop',
    'gate-a',
    () => true,
    (c) => ({
      title: 'Gate A',
      does: [c.mesh ? 'Pattern and backlash approved, by name.' : 'End float approved, by name.'],
      after: ['next-move', 'pattern', 'backlash', 'float-trial'],
      gate: 'A',
      pass: 'Signed.',
      fails: 'Nothing is pressed, crushed or closed before.',
      place: { sheet: 'gates' },
      minutes: 5,
    }),
  ),
];

/** Final assembly, up to Gate B: common practice, no published source. */
export const FINAL: readonly Recipe[] = [
  operation(
    'final',
    'carrier-again',
    (c) => c.carrierAgain,
    (c) => ({
      title: c.pinionOut ? 'Carrier out again, for the final pinion' : 'Carrier out again, for its final bearings',
      does: ['Shims stay by side, caps by their marks. Adjusters: count the notches.'],
      tools: ['trays', ...(c.construction === 'integral-head-shim' ? (['spreader'] as const) : [])],
      after: ['gate-a'],
      takes: [...carrierPieces(c)],
      pass: 'All of it in its trays.',
      fails: '',
      caution: c.caps ? 'It falls out when the second cap goes.' : null,
      minutes: 15,
    }),
  ),
  operation('final', 'pinion-bearing', (c) => c.pinionOut, {
    title: 'Final pinion bearing',
    does: ['The shim under it: count the pieces. Pipe on the race, heat, press.'],
    tools: ['press', 'race-drivers', 'heat', 'gloves'],
    parts: ['pinion-bearings'],
    after: ['gate-a', 'carrier-again'],
    behind: 'A',
    returns: [{ part: 'Pinion shims' }, { part: 'Pinion bearings', count: 2 }],
    records: [text('pieces', 'Pieces under it'), yes('home', 'Home')],
    pass: 'Home, with the pieces that were approved.',
    fails: 'A piece left out is a depth error: off again.',
    caution: 'Hot bearing, loaded press: gloves and face shield. By the race, never the cage.',
    place: { sheet: 'baseline', tab: 'stack' },
    minutes: 25,
  }),
  operation('final', 'seal-flange', (c) => c.pinionOut, {
    title: 'Seal, flange, nut, compounds',
    does: [
      'Clean with what leaves no oil. Compound by place: seats, seal rim, spline cavity, nut threads.',
      'Started means finished before it sets.',
    ],
    tools: ['washer-tank', 'stone', 'race-drivers', 'flange-holder'],
    parts: ['pinion-seal', 'pinion-nut', 'compound'],
    after: ['pinion-bearing'],
    behind: 'A',
    returns: [
      { part: 'Pinion', count: 1 },
      { part: 'Spacer', count: 1 },
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
      ).map(([id, label]) => choice(id, label, ['retaining compound', 'sealant', 'threadlocker', 'none needed'], [])),
      yes('face', 'Flange face smooth where the seal runs'),
    ],
    pass: 'Finished before it sets; splines sealed.',
    fails: 'Stopped: clean it all and begin again.',
    minutes: 25,
  }),
  operation(
    'final',
    'pinion-preload',
    (c) => c.pinionOut,
    (c) => ({
      title: 'Pinion preload',
      does:
        c.spacer === 'collapsible'
          ? [
              'The first of the crush in a press, where there is one. Then by the steps that Preload gives, oiled, read after each.',
              'It rises late and then fast: a reading that stands still says nothing of the next.',
            ]
          : ['Shims under the spacer, nut to its full torque, read oiled. More shim, less torque.'],
      tools: [
        'turning-wrench',
        'flange-holder',
        ...(c.spacer === 'collapsible' ? (['press'] as const) : (['torque-wrench'] as const)),
      ],
      parts: [c.spacer === 'collapsible' ? 'collapsible-spacers' : 'preload-shims'],
      after: ['seal-flange'],
      behind: 'A',
      asks: ['pinionTorqueNew', ...(c.spacer === 'solid' ? ['pinionNutTorque'] : [])],
      pass: 'In the sheet’s band, oiled, turning steadily.',
      fails:
        c.spacer === 'collapsible'
          ? 'Over: a new spacer. The nut is never backed off.'
          : 'Another shim under the spacer.',
      caution: 'The nut takes a great torque: a holder that can’t slip.',
      place: { sheet: 'preload' },
      minutes: 45,
    }),
  ),
  operation('final', 'support-back', (c) => c.construction === 'drop-out' && c.pinionOut, {
    title: 'Support back',
    does: ['O-ring, shim, bolts. Preload is read on the support alone, outside the case.'],
    tools: ['torque-wrench'],
    parts: ['seals'],
    after: ['pinion-preload'],
    behind: 'A',
    returns: [{ part: 'Support bolts' }, { part: 'Support o-ring', count: 1 }],
    records: [torque('support', 'Support bolts')],
    pass: 'Backlash unchanged.',
    fails: 'Another shim than the approved one, or a twisted o-ring.',
    minutes: 15,
  }),
];

/** After the inboard bearings, where there are any. */
export const FINAL_CLOSE: readonly Recipe[] = [
  operation(
    'final',
    'carrier-final',
    (c) => c.mesh,
    (c) => ({
      title: c.caps ? 'Carrier back, caps to torque, locks on' : 'Carrier back, side covers to torque',
      does: [
        ...(c.construction === 'integral-head-shim' ? ['Spread below the limit, shims by side.'] : []),
        c.caps
          ? 'Caps by their marks. Every cap bolt is ticked twice.'
          : 'Side covers by their marks. Every bolt is ticked twice.',
        ...(hasAdjusters(c) ? ['Locks on.'] : []),
      ],
      tools: ['torque-wrench', ...(c.construction === 'integral-head-shim' ? (['spreader'] as const) : [])],
      after: ['gate-a', 'carrier-bearings', 'support-back', 'pinion-preload', 'seal-flange', 'pinion-bearing'],
      behind: 'A',
      asks: c.caps ? ['capTorque'] : [],
      returns: [
        ...(c.carrierAgain ? [...carrierPieces(c)] : []),
        ...(hasAdjusters(c) ? [{ part: 'Adjuster locks', count: 2 }] : []),
      ],
      records: [
        torque('torque', c.caps ? 'Cap bolts' : 'Side cover bolts', c.caps ? 'capTorque' : undefined),
        yes('twice', 'Every bolt ticked twice'),
      ],
      pass: 'Every bolt twice.',
      fails: 'One missed: all of them again.',
      caution: 'Hold it until the second cap is on.',
      minutes: 30,
    }),
  ),
  operation('final', 'locker-line', (c) => c.unit === 'locker' && c.newCarrier, {
    title: 'Line or wire of the locker',
    does: [
      'Seal housing and its tube side; two square rings oiled and flat.',
      'Gentle bends, clear of ring, caps and carrier. Bulkhead fitting to what its sheet says: it is small.',
      'Compressor, solenoid, switch. Copper is wound up or broken by what turns.',
    ],
    tools: ['tube-bender', 'pressure-gauge', 'feeler'],
    parts: ['locker-kit'],
    after: ['carrier-final'],
    closedBy: 'cover',
    records: [
      {
        id: 'gap',
        label: 'Least gap to ring, cap or carrier',
        of: 'number',
        quantity: 'length',
        scale: 'plate',
        range: { min: 0, max: 500, unit: 'mm' },
        pass: { atLeast: 3, from: '3 mm, a guard of ours: the maker’s sheet wins' },
      },
      {
        id: 'fitting',
        label: 'Bulkhead fitting',
        of: 'number',
        quantity: 'torque',
        scale: 'turning',
        range: { min: 0, max: 100, unit: 'N·m' },
        pass: { atMost: 3, from: '3 N·m at most, a guard of ours: its sheet wins' },
      },
      {
        id: 'pressure',
        label: 'Pressure at the start',
        of: 'number',
        quantity: 'pressure',
        range: { above: 0, max: 3000, unit: 'kPa' },
      },
      {
        id: 'pressure-end',
        label: 'Pressure at the end',
        of: 'number',
        quantity: 'pressure',
        range: { min: 0, max: 3000, unit: 'kPa' },
      },
      { id: 'minutes', label: 'Minutes held', of: 'number', quantity: 'count', range: { above: 0, max: 1440 } },
      choice('control', 'Switch, compressor or wiring', ['engages and lets go', 'does not'], ['does not']),
    ],
    pass: 'Holds its pressure, engages, and touches nothing.',
    fails: 'It touches: bend wider, gently. It leaks: rings flat? fitting? then the tube.',
    caution: 'Before it is engaged: both wheels off the ground, nobody near them.',
    minutes: 60,
  }),
  operation(
    'final',
    'final-readings',
    (c) => c.mesh,
    (c) => ({
      title: 'Final backlash and pattern',
      does: [
        'All round, both flanks, in the final state.',
        ...(c.newGears ? [] : ['Short form with reused gears: the old pattern and backlash are the measure.']),
      ],
      tools: ['indicator', 'paste', 'camera'],
      after: ['carrier-final', 'pinion-preload'],
      closedBy: 'cover',
      pass: 'In spec everywhere, pattern unmoved.',
      fails: 'Moved: change side shims, not the pinion.',
      place: { sheet: 'mesh' },
      minutes: 25,
    }),
  ),
];

/** A box that is opened with the axle: common practice, no published source. */
export const BOX: readonly Recipe[] = [
  operation('box', 'synchro', (c) => c.box === 'synchro', {
    title: 'Synchro gears',
    does: [
      'Anchor blocks, energisers, ring, clip; a worn clip is turned over. Firm drag, no play of the hub on its spline.',
    ],
    tools: ['feeler'],
    after: ['inspect'],
    records: [yes('drag', 'Ring turns with firm drag'), yes('clip', 'Clip in its groove')],
    pass: 'Firm drag, clip in its groove.',
    fails: 'Play of the hub: hub or shaft new.',
    minutes: 60,
  }),
  operation('box', 'box-shafts', (c) => c.box !== 'stays', {
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
    minutes: 60,
  }),
  operation('box', 'drum', (c) => c.box === 'sequential', {
    title: 'Gear pairs, hubs, forks, drum',
    does: [
      'Pair by place, spacer or dog gap; a hub and a fork for two gears.',
      'Forks, then selector shaft, then drum. One step at a time through all gears and back.',
    ],
    tools: ['feeler'],
    after: ['box-shafts'],
    records: [yes('through', 'All gears and back, neutral between, one engaged')],
    pass: 'One engaged at a time, neutral between.',
    fails: 'Dog on dog: turn the shaft and try again.',
    minutes: 60,
  }),
  operation('box', 'pinion-pack', (c) => c.construction === 'transaxle' && c.pinionOut, {
    title: 'Pinion pack and bearing plate',
    does: [
      'Mark on the pinion, chain of lengths, thickness of the gasket in the kit, pieces.',
      'Pinion shaft alone first; retaining plate, tabs held while turning.',
    ],
    tools: ['micrometer', 'torque-wrench'],
    after: ['box-shafts', 'measure-shims'],
    records: [
      {
        id: 'gasket',
        label: 'Gasket in the kit',
        of: 'number',
        quantity: 'length',
        scale: 'small',
        range: { min: 0, max: 5, unit: 'mm' },
      },
      torque('plate', 'Retaining plate'),
    ],
    pass: 'The pack is the sum of its pieces.',
    fails: 'Measure again: burr, oil or miscount.',
    place: { sheet: 'depth' },
    minutes: 40,
  }),
];
export const BOX_CLOSE: readonly Recipe[] = [
  operation('box', 'input-float', (c) => c.box !== 'stays', {
    title: 'End float of the input',
    does: [
      'Oil guide seated in its pocket, stop ring in place. Two opposite case bolts snug, other shaft left out.',
      'Pull against the spring, and again.',
    ],
    tools: ['indicator'],
    after: ['box-shafts', 'drum', 'pinion-pack', 'carrier-final', 'gate-a'],
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
    minutes: 30,
  }),
];
