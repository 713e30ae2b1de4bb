import {
  INSERT_FIT_MM,
  entryBase,
  explain,
  say,
  saySmall,
  shimForBacklash,
  sideGearBacklashSlope,
} from '@hot-spline/core';
import { ORDINARY } from '../document/new-build';
import { SIDES, type AxleName, type Unit } from '../document/schema';
import type { Derivation } from '../engine/figure';
import { subjectKey } from '../engine/readings';
import type { Readings } from '../pack/state';
import { bevelGear } from './derive';

/** Backlash of the side gears: what was measured against the sheet, and the shim that brings it there. */
function findBacklash({ plate, sideGear }: Unit, axle: AxleName, readings: Readings, d: Derivation): void {
  const gear = bevelGear(sideGear ?? ORDINARY.sideGear());
  const band = plate?.sideGearBacklash;
  for (const side of SIDES) {
    const reading = readings.get(subjectKey({ what: 'side-gear-backlash', axle, side }));
    if (!reading) continue;
    const now = entryBase(reading.value);
    const title = side === 'left' ? 'Left' : 'Right';
    const id = `unit.${axle}.${side}.backlash`;
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
      sheet: 'pack',
      axle,
      anchor: band ? `measure-${side}-backlash` : 'side-gear-backlash',
      figures: [id],
      rule: band ? 'the maker’s sheet, as entered' : 'nothing to hold it against yet',
      say: (system) => ({
        title: `${title} side-gear backlash ${saySmall(now, system)}${band ? (fits ? '' : now < low ? ', too tight' : ', too loose') : ''}`,
        detail: band
          ? `Wanted ${saySmall(low, system)} to ${saySmall(high, system)}.${fits ? '' : ` ${shim > 0 ? 'Add' : 'Take out'} ${saySmall(shim, system)} of shim for the middle of it.`}`
          : 'Enter what the maker’s sheet wants.',
      }),
    });
  }
}

/** Fit of a friction insert against 3 to 5 thou. */
function findInsert(axle: AxleName, readings: Readings, d: Derivation): void {
  const reading = readings.get(subjectKey({ what: 'insert-fit', axle }));
  const now = reading ? entryBase(reading.value) : null;
  const [low, high] = INSERT_FIT_MM;
  const fits = now !== null && now >= low - 1e-9 && now <= high + 1e-9;
  d.finding({
    id: `unit.insert.${axle}`,
    verdict: now === null ? 'not-yet' : fits ? 'fits' : 'watch',
    sheet: 'unit',
    axle,
    anchor: 'insert-fit',
    figures: [],
    rule: 'common practice, no published source: 3 to 5 thou',
    say: (system) => ({
      title: now === null ? 'Fit of the insert not measured yet' : `Insert fits with ${saySmall(now, system)}`,
      detail: `Wanted ${saySmall(low, system)} to ${saySmall(high, system)}; a sheet of office paper is about ${say(0.1, 'length', system)}.${now === null || fits ? '' : now < low ? ' Too tight: the gears bind.' : ' Too loose: preload is lost.'}`,
    }),
  });
}

export function deriveSideGears(unit: Unit, axle: AxleName, readings: Readings, d: Derivation): void {
  if (unit.type === 'friction-insert') findInsert(axle, readings, d);
  else findBacklash(unit, axle, readings, d);
}
