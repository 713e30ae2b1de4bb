import { entryOf } from '@hot-spline/core';
import {
  newAxleSpec,
  newBuild,
  newSetup,
  setupSubjects,
  type Build,
  type Construction,
  type LedgerEntry,
  type Reading,
  type ReadingValue,
  type Setup,
} from '@hot-spline/model';

const mm = (value: number) => entryOf(value, 'mm');
const said = <T>(value: T) => ({ value, origin: 'maker' as const, where: 'sheet 1' });

/** A build whose rear axle is being set up. */
export function setUpBuild(construction: Construction = 'integral-head-shim', change: Partial<Setup> = {}): Build {
  const build = newBuild('Set-up');
  const { rear } = build.axles;
  if (!rear) throw new Error('no rear axle');
  rear.finalDrive = { ring: 41, pinion: 11 };
  rear.identity = newAxleSpec('Heron', construction, 'measured');
  Object.assign(rear.identity.sheet, {
    backlash: said({ low: mm(0.15), high: mm(0.25) }),
    pinionTorqueNew: said({ low: entryOf(14, 'lbf·in'), high: entryOf(19, 'lbf·in') }),
    pinionTorqueUsed: said({ low: entryOf(8, 'lbf·in'), high: entryOf(12, 'lbf·in') }),
    adjusterPitch: said(mm(1.5)),
    adjusterNotches: said(24),
  });
  rear.setup = {
    ...newSetup(),
    gauges: { backlash: null, turning: { name: '', plusMinus: entryOf(0.5, 'lbf·in') } },
    ...change,
  };
  return build;
}

let made = 0;
function readingOf(subject: Reading['subject'], value: ReadingValue, state: object = {}): Reading {
  made += 1;
  return {
    kind: 'reading',
    id: `40000000-0000-4000-8000-${String(made).padStart(12, '0')}`,
    at: '2026-01-02T03:04:05.000Z',
    who: '',
    subject,
    value,
    state: state as Reading['state'],
    instrument: 'Dial indicator',
  };
}

/** One assembly of the rear axle, as far as it was read. */
export function assemblyOf(
  number: number,
  {
    pinion = 1,
    left = 6,
    right = 6,
    backlash,
    pattern,
    state = newSetup().state,
  }: {
    readonly pinion?: number;
    readonly left?: number;
    readonly right?: number;
    readonly backlash?: number;
    /** Drive u, v, coast u, v. */
    readonly pattern?: readonly [number, number, number, number];
    readonly state?: Setup['state'];
  } = {},
): LedgerEntry[] {
  const of = { axle: 'rear' as const, assembly: String(number) };
  const flank = (u: number, v: number) => ({
    u,
    v,
    length: 0.4,
    height: 0.4,
    turnedDeg: 0,
    edges: [],
    shape: 'one' as const,
  });
  const entries = [
    readingOf(setupSubjects.assembled.of(of), {
      of: 'assembly',
      pinion: [mm(pinion)],
      left: [mm(left)],
      right: [mm(right)],
      leftNotches: 0,
      rightNotches: 0,
    }),
  ];
  if (backlash !== undefined)
    entries.push(
      readingOf(
        setupSubjects.backlash.of({ ...of, stage: 'trial' }),
        { of: 'places', entries: Array.from({ length: 8 }, () => mm(backlash)) },
        state,
      ),
    );
  if (pattern)
    entries.push(
      readingOf(
        setupSubjects.pattern.of({ ...of, stage: 'trial' }),
        { of: 'pattern', drive: flank(pattern[0], pattern[1]), coast: flank(pattern[2], pattern[3]) },
        state,
      ),
    );
  return entries;
}
