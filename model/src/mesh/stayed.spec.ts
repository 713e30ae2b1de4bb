import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { newSetup } from './new-setup';
import type { PastSetup } from './axle';
import type { Reading } from '../frame/readings';
import { entry, jobOf } from '../testing/bench';
import { assembled, sealDrag, totalTorque } from './readings';
import { FIRST_TRIAL } from './new-setup';

const FINAL = { ...FIRST_TRIAL, pinionBearings: 'new', sideBearings: 'new', spacer: 'new', seal: 'in' } as const;
const nm = (value: number) => ({ of: 'number' as const, counts: 'mean' as const, entries: [entryOf(value, 'N·m')] });
const total = (stage: 'final' | 'run-in', value: number): Reading => ({
  ...entry(totalTorque.of({ axle: 'rear', stage }), nm(value)),
  state: FINAL,
});
const together = entry(assembled.of({ axle: 'rear', assembly: '1' }), {
  of: 'assembly',
  pinion: [entryOf(1, 'mm')],
  left: [entryOf(6, 'mm')],
  right: [entryOf(6, 'mm')],
  leftNotches: 0,
  rightNotches: 0,
  drawers: [],
});

// Common practice, no published source: preload falls over the run-in; what an axle kept is what those after it may expect.
describe('what stays of the turning torque over the run-in', () => {
  const build = jobOf('ratio-swap', (axle) => (axle.setup = newSetup()));
  if (build.axles.rear?.setup) build.axles.rear.setup.state = { ...FINAL };
  const found = (ledger: readonly Reading[], past: readonly PastSetup[] = []) => {
    const { findings, mesh } = deriveBuild(build, [together, ...ledger], { past });
    return { finding: findings.find(({ id }) => id === 'preload.rear.stayed'), stayed: mesh.rear?.stayed ?? null };
  };
  const like = (share: number, bearings = 'pinion new, sides new'): PastSetup => ({
    axle: 'rear',
    spec: build.axles.rear?.identity?.name ?? '',
    construction: build.axles.rear?.identity?.construction.value ?? 'drop-out',
    job: null,
    closingsMm: [],
    stayed: { share, fromNm: 3, nowNm: 3 * share, sealOff: false, bearings },
  });

  it('is after ÷ before, and the seal’s drag is taken off both where it was read', () => {
    expect(found([total('final', 3), total('run-in', 2.4)]).stayed?.share).toBeCloseTo(0.8, 12);
    const drag = entry(sealDrag.of({ axle: 'rear' }), nm(0.5));
    // By hand: 1.9 ÷ 2.5.
    expect(found([drag, total('final', 3), total('run-in', 2.4)]).stayed?.share).toBeCloseTo(0.76, 12);
  });

  it('needs both, in their order, and something left to compare', () => {
    expect(found([total('final', 3)]).stayed).toBeNull();
    expect(found([total('run-in', 2.4)]).stayed).toBeNull();
    // The axle was set up once more since: what was read before that says nothing of it.
    expect(found([total('run-in', 2.4), total('final', 3)]).stayed).toBeNull();
    // Less than the seal is left: it stays in both, and that is said. By hand: 0.4 ÷ 3.
    const seal = entry(sealDrag.of({ axle: 'rear' }), nm(0.5));
    const low = found([seal, total('final', 3), total('run-in', 0.4)]).stayed;
    expect(low?.share).toBeCloseTo(0.4 / 3, 12);
    expect(low?.sealOff).toBeFalse();
  });

  it('less than axles alike kept is a watch, however much it is', () => {
    const kept = (share: number) =>
      found([total('final', 3), total('run-in', 3 * share)], [like(0.8), like(0.85), like(0.9)]);
    expect(kept(0.76).finding?.verdict).toBe('fits');
    expect(kept(0.74).finding?.verdict).toBe('watch');
  });

  it('less than half is a watch, unless the shop has seen axles alike keep less', () => {
    const low = [total('final', 3), total('run-in', 1.2)];
    expect(found(low).finding?.verdict).toBe('watch');
    expect(found(low, [like(0.38), like(0.45), like(0.5)]).finding?.verdict).toBe('fits');
    // Two are luck, and other bearings are another thing.
    expect(found(low, [like(0.38), like(0.45)]).finding?.verdict).toBe('watch');
    const other = 'pinion used, sides used';
    expect(found(low, [like(0.3, other), like(0.35, other), like(0.4, other)]).finding?.verdict).toBe('watch');
  });

  it('before the run-in it says what axles alike kept, once there are three', () => {
    expect(found([total('final', 3)], [like(0.7), like(0.8)]).finding).toBeUndefined();
    const said = found([total('final', 3)], [like(0.7), like(0.9), like(0.8)]).finding;
    expect(said?.verdict).toBe('fits');
    expect(said?.say('metric').detail).toContain('3 axles of this spec with pinion new, sides new kept 70 to 90 %');
  });
});
