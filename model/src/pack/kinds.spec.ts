import { entryOf } from '@hot-spline/core';
import { newPlateSpec } from '../document/new-build';
import type { Member, PlateSpec } from './schema';
import { packSideState } from './state';
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

  it('coils: Σk·(free − installed); between the gears each pack has the half of them', () => {
    // [exact, docs/pack.md]
    expect(left([steel('a'), friction('b'), coils(false)], 4 + 25).clampN).toBeCloseTo(4 * 40 * 5, 6);
    // 30 mm over both packs, 12.5 mm of room in each: 25 mm installed, the same force
    expect(left([steel('a'), friction('b'), coils(true)], 4 + 12.5).clampN).toBeCloseTo(4 * 40 * 5, 6);
    expect(left([steel('a'), friction('b'), coils(false)], 4 + 17).clampProblem?.kind).toBe('refused');
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
    const packs = {
      left: packSideState(plate, 'rear', 'left', new Map()),
      right: packSideState(plate, 'rear', 'right', new Map()),
    };
    expect(() => wantedProblemOf(plate, packs, null, 3)).toThrowError(/lined face/);
  });
});
