import { meshAdvise, type MeshMove } from '../mesh/advise';
import { depthSign } from '../mesh/construction';
import { PATTERN_BAND } from '../mesh/job';
import { assemble, trueReadings, type VirtualAxle, type WholeTry } from './virtual-axle';

const STEP = 0.025;
const stepped = (mm: number): number => Number((Math.round(mm / STEP) * STEP).toFixed(6));
const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

/** Whether a virtual axle is in spec in truth: all round and on both flanks. Not counted: how it would be read. */
export function inTruth(
  axle: VirtualAxle,
  { pinionShimMm, ringShiftMm }: Pick<MeshMove, 'pinionShimMm' | 'ringShiftMm'>,
): boolean {
  const [backlash = 0, ...patches] = trueReadings(axle, pinionShimMm, ringShiftMm);
  const [low, high] = axle.specBacklashMm;
  const { runoutMm } = axle.truth;
  const half = [PATTERN_BAND.drive.u, PATTERN_BAND.drive.v, PATTERN_BAND.coast.u, PATTERN_BAND.coast.v];
  return (
    backlash - runoutMm >= low - 1e-9 &&
    backlash + runoutMm <= high + 1e-9 &&
    patches.every((value, i) => Math.abs(value) <= (half[i] ?? 0) + 1e-9)
  );
}

/**
 * The next move by the rule of thumb: depth by the height of the pattern, bold first, then split; the ring by 0.7 for backlash, what
 * depth takes away given back [common practice].
 * Not counted: run-out, anything learned.
 */
export function ruleOfThumb(axle: VirtualAxle, tries: readonly WholeTry[]): MeshMove | null {
  const last = tries.at(-1);
  if (!last) return null;
  const sign = depthSign(axle.addingShimMovesPinion);
  const [low, high] = axle.specBacklashMm;
  const height = (one: WholeTry): number => (2 * one.drive.v + one.coast.v) / 3;
  const before = tries.at(-2);
  let deeper = 0;
  if (Math.abs(height(last)) > 0.15) {
    const crossed = before && Math.sign(height(before)) !== Math.sign(height(last));
    const lastMove = before ? Math.abs(last.pinionShimMm - before.pinionShimMm) : 0;
    deeper = Math.sign(height(last)) * (before ? Math.max(crossed ? lastMove / 2 : 0.125, STEP) : 0.25);
  }
  const off = meanOf(last.backlashMm) - 0.2 * deeper - (low + high) / 2;
  return {
    pinionShimMm: Math.max(0, stepped(last.pinionShimMm + sign * deeper)),
    ringShiftMm: stepped(last.ringShiftMm + off / 0.7),
  };
}

export type Player = (axle: VirtualAxle, tries: readonly WholeTry[]) => MeshMove | null;
export const byAdvice: Player = (axle, tries) => meshAdvise({ ...axle, tries }).next;

/** Every position that a player puts an axle together in, until it is in spec in truth or `most` are done. */
export function playAxle(
  axle: VirtualAxle,
  player: Player,
  most = 8,
): { readonly moves: readonly MeshMove[]; readonly inSpec: boolean } {
  const tries: WholeTry[] = [];
  let at: MeshMove | null = { pinionShimMm: axle.startShimMm, ringShiftMm: 0 };
  const moves: MeshMove[] = [];
  while (at && moves.length < most) {
    moves.push(at);
    tries.push(assemble(axle, at.pinionShimMm, at.ringShiftMm, moves.length - 1));
    if (inTruth(axle, at)) return { moves, inSpec: true };
    at = player(axle, tries);
  }
  return { moves, inSpec: false };
}
