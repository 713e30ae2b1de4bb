import {
  INSERT_FIT_MM,
  entryBase,
  explain,
  shimForBacklash,
  sideGearBacklashSlope,
  wrenchReading,
} from '@hot-spline/core';
import { ORDINARY } from './new-unit';
import { SIDES, capital, type AxleName, type Side } from '../base/names';
import type { PlateSpec } from '../pack/schema';
import { packSideState, type PackState } from '../pack/state';
import { bevelGear } from '../pack/bevel-gear';
import { type Unit } from './schema';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { readingBase, type Readings } from '../frame/readings';
import { unitFigures } from './ids';
import { insertFit, sideGearBacklash } from './readings';
import * as words from './words';

/** Backlash of the side gears: what was measured against the sheet, and the shim that brings it there. */
/** What a shim behind one side gear does besides: the stack, and what the wrench reads with the other wheel held. */
function besides(plate: PlateSpec, axle: AxleName, side: Side, readings: Readings, packs: PackState, shimMm: number) {
  const moved = { ...packs, [side]: packSideState(plate, axle, side, readings, shimMm) };
  const [leftNm, rightNm] = [moved.left.breakawayNm, moved.right.breakawayNm];
  const { torqueNm } = wrenchReading({ leftNm, rightNm }, 'other-wheel-held', packs.wheel);
  return {
    stack: fact(moved[side].stackMm, 'length'),
    ...(moved[side].clampProblem ? {} : { reading: fact(torqueNm, 'torque') }),
  };
}

function findBacklash(
  { plate, sideGear }: Unit,
  axle: AxleName,
  readings: Readings,
  packs: PackState | null,
  d: Derivation,
): void {
  const gear = bevelGear(sideGear ?? ORDINARY.sideGear());
  const band = plate?.sideGearBacklash;
  for (const side of SIDES) {
    const reading = readings.get(sideGearBacklash.key({ axle, side }));
    if (!reading) continue;
    const now = readingBase(reading);
    const title = capital(side);
    const id = unitFigures.backlash(axle, side);
    d.figure({
      id,
      label: `${title} side-gear backlash per shim`,
      value: sideGearBacklashSlope(gear),
      quantity: 'ratio',
      explain: () =>
        explain({
          title: `${title} side-gear backlash lost per shim added`,
          formula: '2 × tan φ × sin Γ, straight bevel gears, at the pitch circle',
          inputs: [
            { key: 'phi', label: 'pressure angle φ', value: gear.pressureAngleDeg, quantity: 'angle' },
            { key: 'cone', label: 'pitch cone angle Γ', value: gear.coneAngleDeg, quantity: 'angle' },
          ],
          sources: [{ kind: 'exact', text: 'geometry of the mesh' }],
          result: { label: 'backlash per shim', quantity: 'ratio' },
          ...(sideGear
            ? {}
            : { note: 'Angles of an ordinary side gear, ours: put in the gear’s own on the unit sheet.' }),
          compute: ({ phi = 0, cone = 0 }) => ({
            value: sideGearBacklashSlope({ ...gear, pressureAngleDeg: phi, coneAngleDeg: cone }),
          }),
        }),
    });
    const low = band ? entryBase(band.low) : 0;
    const high = band ? entryBase(band.high) : 0;
    const fits = !band || (now >= low - 1e-9 && now <= high + 1e-9);
    const shim = band ? shimForBacklash(gear, now, (low + high) / 2) : 0;
    d.finding({
      id: `unit.backlash.${axle}.${side}`,
      verdict: band ? (fits ? 'fits' : 'watch') : 'not-yet',
      place: band
        ? { sheet: 'pack', tab: 'measure', axle, field: `measure-${side}-backlash` }
        : { sheet: 'pack', tab: 'springs', axle, field: 'side-gear-backlash' },
      station: 'unit',
      figures: [id],
      rule: band ? 'the maker’s sheet, as entered' : 'nothing to hold it against yet',
      facts: {
        side,
        fits,
        now: fact(now, 'length', 'small'),
        ...(band
          ? {
              low: fact(low, 'length', 'small'),
              high: fact(high, 'length', 'small'),
              shim: fact(shim, 'length', 'small'),
              ...(plate && packs && !fits ? besides(plate, axle, side, readings, packs, shim) : {}),
            }
          : {}),
      },
      say: words.backlash,
    });
  }
}

/** Fit of a friction insert against our guard. */
function findInsert(axle: AxleName, readings: Readings, d: Derivation): void {
  const reading = readings.get(insertFit.key({ axle }));
  const now = reading ? readingBase(reading) : null;
  const [low, high] = INSERT_FIT_MM;
  const fits = now !== null && now >= low - 1e-9 && now <= high + 1e-9;
  d.finding({
    id: `unit.insert.${axle}`,
    verdict: now === null ? 'not-yet' : fits ? 'fits' : 'watch',
    place: { sheet: 'unit', axle, field: 'insert-fit' },
    station: 'unit',
    figures: [],
    rule: '0.06 to 0.14 mm, a guard of ours: the insert’s sheet wins',
    facts: {
      ...(now === null ? {} : { now: fact(now, 'length', 'small') }),
      low: fact(low, 'length', 'small'),
      high: fact(high, 'length', 'small'),
    },
    say: words.insert,
  });
}

export function deriveSideGears(
  unit: Unit,
  axle: AxleName,
  readings: Readings,
  packs: PackState | null,
  d: Derivation,
): void {
  if (unit.type === 'friction-insert') findInsert(axle, readings, d);
  else findBacklash(unit, axle, readings, packs, d);
}
