import { entryOf } from '@hot-spline/core';
import type { LedgerEntry } from '../frame/readings';
import { entry, jobOf, look } from '../testing/bench';
import { FIRST_TRIAL, newSetup } from './new-setup';
import { assembled, pattern, patternAt } from './readings';

const build = jobOf('ratio-swap', (axle) => {
  axle.setup = newSetup();
});
const inIt = entry(assembled.of({ axle: 'rear', assembly: '1' }), {
  of: 'assembly',
  pinion: [entryOf(1, 'mm')],
  left: [],
  right: [],
  leftNotches: 0,
  rightNotches: 0,
});
const flank = (u: number, v: number) => ({
  u,
  v,
  length: 0.4,
  height: 0.4,
  turnedDeg: 0,
  edges: [],
  shape: 'one' as const,
});
const value = (u: number, v: number) => ({ of: 'pattern' as const, drive: flank(u, v), coast: flank(0, 0) });
const keys = { axle: 'rear', assembly: '1', stage: 'trial' } as const;
const at = (place: number, u: number, v: number): LedgerEntry => ({
  ...entry(patternAt.of({ ...keys, place: String(place) as '1' }), value(u, v)),
  state: FIRST_TRIAL,
});
const all = (...vs: number[]) => vs.map((v, i) => at(i + 1, 0, v));
const mesh = (...ledger: LedgerEntry[]) => look(build, [inIt, ...ledger]);

describe('the pattern at places round the ring', () => {
  it('what is the same everywhere is depth, what comes once a turn the seat [common practice]', () => {
    // 0.2 everywhere and ±0.3 once a turn: v = 0.2 + 0.3·cos θ at 0, 90, 180, 270° [exact]
    const cocked = mesh(...all(0.5, 0.2, -0.1, 0.2));
    const now = cocked.derived.mesh.rear?.now;
    expect(now?.patternRound.trial?.swing).toBeCloseTo(0.3, 9);
    expect(now?.patternRound.trial?.seat).toBeTrue();
    expect(now?.patternRound.trial?.angleDeg).toBeCloseTo(0, 6);
    expect(now?.pattern.trial?.value.drive.v).toBeCloseTo(0.2, 9);
    const finding = cocked.finding('mesh.rear.seat');
    expect(finding?.verdict).toBe('stop');
    expect(finding?.say('metric').title).toContain('not depth');
    // No move of a shim is asked of it: the steps of the mesh wait.
    expect(cocked.step('next-move')?.waits.some(({ holds }) => holds)).toBeTrue();
  });

  it('too high everywhere is depth, and no seat', () => {
    const deep = mesh(...all(0.5, 0.5, 0.5, 0.5));
    expect(deep.finding('mesh.rear.seat')?.verdict).toBe('fits');
    expect(deep.derived.mesh.rear?.now?.pattern.trial?.value.drive.v).toBeCloseTo(0.5, 9);
    // Up and down twice a turn is no seat: onceATurn of +,−,+,− is nothing [exact]
    expect(mesh(...all(0.3, -0.3, 0.3, -0.3)).finding('mesh.rear.seat')?.verdict).toBe('fits');
  });

  it('says nothing until all four are read; a whole pattern that is read later counts', () => {
    expect(mesh(...all(0.5, 0.2, -0.1)).finding('mesh.rear.seat')).toBeUndefined();
    const later = { ...entry(pattern.of(keys), value(0, 0.05)), state: FIRST_TRIAL };
    const { derived, finding } = mesh(...all(0.5, 0.2, -0.1, 0.2), later);
    expect(derived.mesh.rear?.now?.pattern.trial?.value.drive.v).toBeCloseTo(0.05, 9);
    expect(finding('mesh.rear.seat')).toBeUndefined();
  });
});
