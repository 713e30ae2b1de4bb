import { entryOf } from '@hot-spline/core';
import { newPlateSpec } from './new-plates';
import type { Member, PlateSpec } from './schema';
import { packStateOf } from './pack-state';
import { packSideState, slidingFriction } from './state';
import { wantedProblemOf } from './wanted';

const mm = (value: number) => entryOf(value, 'mm');
const piece = { condition: null };
const steel = (id: string): Member => ({ id, kind: 'eared', label: 'steel', lined: false, thickness: mm(2), ...piece });
const friction = (id: string): Member => ({
  id,
  kind: 'splined',
  label: 'friction',
  lined: true,
  thickness: mm(2),
  ...piece,
});
const coils = (shared: boolean): Member => ({
  id: 'c',
  kind: 'coils',
  label: 'coils',
  thickness: mm(30),
  count: 4,
  rate: entryOf(40, 'N/mm'),
  solidHeight: mm(18),
  shared,
  ...piece,
});

function left(members: Member[], caseDepth: number, change: (plate: PlateSpec) => void = () => undefined) {
  const plate = newPlateSpec();
  plate.packs.left.members = members;
  plate.packs.left.caseDepth = mm(caseDepth);
  change(plate);
  return packSideState(plate, 'rear', 'left', new Map());
}

describe('kinds of member', () => {
  it('a pressure ring is in the stack and makes no interface of its own', () => {
    const ring: Member = { id: 'r', kind: 'ring', label: 'ring', thickness: mm(6), ...piece };
    const state = left([steel('a'), friction('b'), ring], 20);
    expect(state.stackMm).toBe(10);
    expect(state.interfaces).toBe(2); // steel–friction and friction–ring
  });

  it('coils: Σk·(free − installed)', () => {
    // [exact, docs/pack.md]
    expect(left([steel('a'), friction('b'), coils(false)], 4 + 25).clampN).toBeCloseTo(4 * 40 * 5, 6);
    expect(left([steel('a'), friction('b'), coils(false)], 4 + 17).clampProblem?.kind).toBe('refused');
  });

  it('a spring between the gears presses both packs by the gap between them, whatever the case depth', () => {
    const gap = (mmGap: number | null, depth = 5) =>
      left([steel('a'), friction('b'), coils(true)], depth, (plate) => {
        plate.gearGap = mmGap === null ? null : mm(mmGap);
        plate.packs.right.members = [steel('c'), friction('d')];
      });
    // one force on both [exact, statics]: listed with the left pack, it clamps the right one too
    for (const depth of [5, 40]) expect(gap(25, depth).clampN).toBeCloseTo(4 * 40 * 5, 6);
    const plate = newPlateSpec();
    plate.gearGap = mm(25);
    plate.packs.left.members = [steel('a'), friction('b'), coils(true)];
    plate.packs.right.members = [steel('c'), friction('d')];
    expect(packSideState(plate, 'rear', 'right', new Map()).clampN).toBeCloseTo(4 * 40 * 5, 6);
    // more shim on both sides closes the gap by twice as much
    expect(packSideState(plate, 'rear', 'left', new Map(), 0.1).clampN).toBeCloseTo(4 * 40 * 5.2, 6);
    // it pushes along with the thrust
    expect(gap(25).rest).toEqual({ seriesN: 0, parallelN: gap(25).clampN });
    expect(gap(null).clampProblem?.field).toBe('gearGap');
    expect(gap(17).clampProblem?.field).toBe('gearGap');
    expect(gap(31).clampProblem?.kind).toBe('slack');
  });

  it('springs the clamp passes through are in series, those inside of a pressure ring push along with it', () => {
    const ring: Member = { id: 'r', kind: 'ring', label: 'ring', thickness: mm(6), ...piece };
    const inside = left([coils(false), ring, steel('a'), friction('b')], 10 + 25);
    const outside = left([ring, steel('a'), friction('b'), coils(false)], 10 + 25);
    expect([inside.acts, outside.acts]).toEqual(['parallel', 'series']);
    expect(inside.rest).toEqual({ seriesN: 0, parallelN: inside.clampN });
    expect(outside.rest).toEqual({ seriesN: outside.clampN, parallelN: 0 });
    // at rest both press with the same force
    expect(inside.clampN).toBeCloseTo(outside.clampN, 9);
  });

  it('what is measured slipping locks in running, and what breaks away is what the wrench reads', () => {
    const state = left([steel('a'), friction('b'), coils(false)], 4 + 25, (plate) => {
      plate.frictionCoefficient = entryOf(0.12, '');
      plate.slidingCoefficient = entryOf(0.09, '');
    });
    expect(state.slidingNm / state.breakawayNm).toBeCloseTo(0.75, 12);
    expect(slidingFriction({ ...newPlateSpec(), slidingCoefficient: null })).toBe(0.1);
  });

  it('an S-spring holds what was measured, and nothing is guessed below it', () => {
    const spring: Member = {
      id: 's',
      kind: 's-spring',
      label: 'S',
      thickness: mm(30),
      points: [{ height: mm(24), force: entryOf(1200, 'N') }],
      shared: false,
      ...piece,
    };
    expect(left([steel('a'), friction('b'), spring], 4 + 24).clampN).toBeCloseTo(1200, 9);
    expect(left([steel('a'), friction('b'), spring], 4 + 23.9).clampProblem?.field).toBe('travelMm');
  });

  it('a wave plate springs and rubs: in the interfaces, not in the stack height', () => {
    const wave: Member = {
      id: 'w',
      kind: 'wave',
      label: 'wave',
      lined: true,
      thickness: mm(1.5),
      waveHeight: mm(0.6),
      flatForce: entryOf(900, 'N'),
      ...piece,
    };
    const bare: Member = { ...friction('b'), lined: false } as Member;
    const state = left([bare, wave], 2 + 1.5 + 0.4);
    expect(state.interfaces).toBe(1);
    expect(state.stackMm).toBe(2);
    expect(state.clampN).toBeCloseTo((900 * 0.2) / 0.6, 6);
  });

  it('a lined end face makes an interface with what turns otherwise', () => {
    const members = [steel('a'), { ...friction('b'), lined: false } as Member];
    expect(left(members, 20).interfaces).toBe(0);
    expect(left(members, 20, (plate) => (plate.packs.left.gearFace.lined = true)).interfaces).toBe(1);
    expect(left(members, 20, (plate) => (plate.packs.left.caseWall.lined = true)).interfaces).toBe(1);
  });

  it('orders are not planned round a lined face', () => {
    const plate = newPlateSpec();
    plate.wanted = { hold: 'other-wheel-held', low: entryOf(20, 'N·m'), high: entryOf(30, 'N·m') };
    plate.packs.left.gearFace.lined = true;
    const packs = packStateOf(plate, 'rear', new Map(), { thrust: 'ramps', pinionRatio: 4 });
    expect(() => wantedProblemOf(plate, packs, null, 3)).toThrowError(/lined face/);
  });
});
