import { entryBase, type Facts } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import type { PartState } from '../inspect';
import { inspectSubjects } from '../inspect/readings';
import { ringBolts } from '../joint/readings';
import type { JointState } from '../joint/state';
import type { MeshAxle } from '../mesh/axle';
import { endFloat, ringRunout, sealDrag, totalTorque } from '../mesh/readings';
import { preloadVerdict } from '../preload/derive';
import type { PreloadAxle } from '../preload/state';
import { settled } from './gate-needs';
import type { Evidence, Proofs } from './stand';

/** What other capabilities know of an axle at work. */
interface Known {
  readonly axle: Axle;
  readonly mesh: MeshAxle | null;
  readonly preload: PreloadAxle | null;
  readonly joint: JointState | null;
  readonly parts: readonly PartState[] | null;
  readonly facts: Facts | null;
}

/** What other capabilities miss of a step before it can be called done. */
export function evidenceOf(
  name: AxleName,
  { axle, mesh, preload, joint, parts, facts }: Known,
  readings: Readings,
): Evidence {
  const now = mesh?.now ?? null;
  const missing = (ok: boolean, says: string): string | null => (ok ? null : says);
  const read = (value: unknown): boolean => value !== null && value !== undefined;
  // How it came is no trial: the loop begins with the first time that it is put together.
  const tried = now !== null && now.number > 0 ? now : null;
  const came = mesh?.assemblies.find(({ number }) => number === 0) ?? null;
  const rounds = joint?.rounds ?? [];
  return {
    identify: () => missing(axle.identity !== null, 'no spec of the axle'),
    'measure-shims': () => missing(came !== null, 'no shim written on Baseline'),
    // With another pair the old mesh is no target: who wants its readings takes them.
    'readings-before': () =>
      missing(facts?.gears !== 'stay' || read(mesh?.came.backlash), 'backlash as it came not read'),
    inspect: () => {
      const open = parts?.filter(({ decided }) => decided === null) ?? [];
      return missing(open.length === 0, `${open.length} parts not decided`);
    },
    depth: () => missing(read(axle.setup?.depth.headReading), 'depth not measured on Depth'),
    'trial-carrier': () => missing(tried !== null, 'not put together on Carrier'),
    'run-out': () => missing(mesh !== null && readings.has(ringRunout.key({ axle: name })), 'run-out not read'),
    backlash: () => missing(read(tried?.backlash.trial), 'backlash not read'),
    pattern: () => missing(read(tried?.pattern.trial), 'pattern not read'),
    'pinion-preload': () =>
      preload?.last
        ? missing(!mesh || preloadVerdict(mesh, preload) !== 'go-on', 'turning torque below its band')
        : 'turning torque not read',
    'seal-drag': () => missing(read(preload?.sealNm), 'drag of the seal not read'),
    'total-torque': () =>
      missing(readings.has(totalTorque.key({ axle: name, stage: 'final' })), 'total turning torque not read'),
    'side-preload': () =>
      missing(
        preload?.side.some(({ value, said }) => value !== null || said !== null) ?? false,
        'side preload read by no method',
      ),
    'final-readings': () =>
      missing(read(now?.backlash.final) && read(now?.pattern.final), 'final backlash and pattern not read'),
    'float-trial': () => missing(read(now?.endFloatMm.trial), 'end float not read'),
    'float-final': () => missing(read(now?.endFloatMm.final), 'end float not read'),
    'ring-bolts': () => {
      const open = rounds.filter(({ whole }) => !whole).map(({ label }) => label.toLowerCase());
      return missing(joint !== null && open.length === 0, joint ? open.join(', ') : 'bolts not ticked on Ring joint');
    },
  };
}

/** The later of readings that are all there; null where one is missing. */
function later(...all: readonly (InForce | null | undefined)[]): InForce | null {
  let last: InForce | null = null;
  for (const one of all) {
    if (!one) return null;
    if (last === null || one.seq > last.seq) last = one;
  }
  return last;
}

/** The last reading of one of these kinds on an axle. */
function lastOf(readings: Readings, axle: AxleName, kinds: readonly string[]): InForce | null {
  let last: InForce | null = null;
  for (const one of readings.values()) {
    const { what, axle: on } = one.subject as { readonly what: string; readonly axle?: string };
    if (kinds.includes(what) && on === axle && (last === null || one.seq > last.seq)) last = one;
  }
  return last;
}

/** Every shim that a construction has was written as it came out; where it has none at a place, somebody says so by a tap. */
function cameWhole({ assemblies, ringBy }: MeshAxle): InForce | null {
  const came = assemblies.find(({ number }) => number === 0);
  if (!came) return null;
  const packs =
    ringBy === 'none'
      ? (['left'] as const)
      : ringBy === 'adjusters'
        ? (['pinion'] as const)
        : (['pinion', 'left', 'right'] as const);
  return packs.every((pack) => came.value[pack].length > 0) ? came.reading : null;
}

/** A reading, unless it is out of a band that somebody has said. */
function unlessOut(reading: InForce | null, band: readonly [number, number] | null): InForce | null {
  if (!reading || !band) return reading;
  const value = readingBase(reading);
  return value < band[0] - 1e-9 || value > band[1] + 1e-9 ? null : reading;
}

/**
 * The reading that does a step by itself: of steps that are nothing but reading, and never where it is out of what it is held
 * against. Where nobody has said what that is, having read it is all that there is.
 */
export function proofsOf(name: AxleName, { mesh, preload, facts }: Known, readings: Readings): Proofs {
  const now = mesh?.now ?? null;
  const tried = now !== null && now.number > 0 ? now : null;
  const asBefore = facts?.gears === 'stay';
  const told = mesh?.sheet.totalTorque?.value ?? null;
  const float = (stage: 'trial' | 'final'): InForce | null =>
    unlessOut(
      (now && readings.get(endFloat.key({ axle: name, assembly: String(now.number), stage }))) ?? null,
      mesh?.floatBand ?? null,
    );
  return {
    'measure-shims': () => mesh && cameWhole(mesh),
    'readings-before': () => later(mesh?.came.backlash?.reading, mesh?.came.pattern?.reading),
    inspect: () =>
      lastOf(
        readings,
        name,
        inspectSubjects.map(({ what }) => what),
      ),
    'run-out': () => readings.get(ringRunout.key({ axle: name })) ?? null,
    backlash: () => tried?.backlash.trial?.reading ?? null,
    // Faint, or under light drag, it says nothing.
    pattern: () => (tried?.pattern.trial?.counts ? tried.pattern.trial.reading : null),
    'next-move': () => (mesh && tried && facts ? settled(mesh, 'trial', asBefore) : null),
    'pinion-preload': () =>
      mesh && preload && preloadVerdict(mesh, preload) === 'in-band' ? (preload.last?.reading ?? null) : null,
    'seal-drag': () => readings.get(sealDrag.key({ axle: name })) ?? null,
    'total-torque': () =>
      unlessOut(
        readings.get(totalTorque.key({ axle: name, stage: 'final' })) ?? null,
        told && [entryBase(told.low), entryBase(told.high)],
      ),
    'side-preload': () => preload?.side.find(({ verdict }) => verdict === 'fits')?.reading ?? null,
    'final-readings': () => (mesh && facts ? settled(mesh, 'final', asBefore) : null),
    'float-trial': () => float('trial'),
    'float-final': () => float('final'),
    'ring-bolts': () => lastOf(readings, name, [ringBolts.what]),
  };
}
