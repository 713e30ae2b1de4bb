import { PERMITTED, entryBase, type SectionOf, type SectionPlate } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import type { PackSideState, PackState } from '../pack/state';

/** Outside of a ring of which nobody has said a bolt circle, mm: ours, for drawing alone. */
export const DRAWN_RING_MM = 200;
/** Bolt circle as a share of the outside: as the section draws it. */
const BOLT_CIRCLE = 0.74;

/** What a type of unit is drawn as. */
const DRAWN_UNIT: Readonly<Record<Axle['unit']['type'], Extract<SectionOf, { clips: boolean }>['unit']>> = {
  plate: 'plate',
  'side-gear-thrust': 'plate',
  cone: 'plain',
  helical: 'geared',
  hybrid: 'geared',
  'friction-insert': 'insert',
  'selectable-locker': 'locker',
  'automatic-locker': 'insert',
  spool: 'spool',
  open: 'plain',
};

const platesOf = (side: PackSideState | undefined): readonly SectionPlate[] =>
  (side?.members ?? []).map(({ thicknessMm, keyedTo }) => ({ thicknessMm, keyedTo }));

/**
 * What the section of an axle is drawn from: what was said of it, and where nothing was, the usual of its construction.
 * A ring of which nobody said how wide it or its bolt circle is, is drawn {@link DRAWN_RING_MM} wide.
 */
export function sectionOfAxle(name: AxleName, axle: Axle, pack: PackState | null): SectionOf {
  const { identity, setup, joint, work, finalDrive, unit } = axle;
  const construction = identity?.construction.value ?? 'integral-head-shim';
  const ringSide = setup?.ringSide ?? 'left';
  const drawn = DRAWN_UNIT[unit.type];
  if (construction === 'electric-reduction')
    return { construction, ratio: finalDrive.ring / finalDrive.pinion, ringSide, unit: drawn };
  const permitted = PERMITTED[construction];
  const said = work?.facts;
  const depthShim = said?.depthShim ?? permitted.depthShim[0];
  const ringPlacedBy = said?.ringPlacedBy ?? permitted.ringPlacedBy[0];
  const circle = joint?.boltCircle ? entryBase(joint.boltCircle) : null;
  const across = identity?.ringDiameter ? entryBase(identity.ringDiameter.value) : null;
  return {
    construction,
    depthShim: depthShim === undefined || depthShim === 'none' ? 'head-bearing' : depthShim,
    ringPlacedBy: ringPlacedBy === undefined || ringPlacedBy === 'none' ? 'outboard-shims' : ringPlacedBy,
    sideShims: setup?.sideShims ?? 'behind-cup',
    ringTeeth: finalDrive.ring,
    pinionTeeth: finalDrive.pinion,
    ringDiameterMm: across ?? (circle === null ? DRAWN_RING_MM : circle / BOLT_CIRCLE),
    ringSide,
    flangeLooks: name === 'rear' ? 'forward' : 'rearward',
    spacer: setup?.spacer ?? 'collapsible',
    clips: identity?.retention?.value === 'c-clips',
    unit: drawn,
    packs: drawn === 'plate' ? { left: platesOf(pack?.left), right: platesOf(pack?.right) } : { left: [], right: [] },
  };
}
