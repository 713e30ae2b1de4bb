import type { Facts } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import type { InForce, Readings } from '../frame/readings';
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

const NOT_READ = 'not read yet';

/** What other capabilities miss of a step before it can be called done. */
export function evidenceOf(
  name: AxleName,
  { axle, mesh, preload, joint, parts, facts }: Known,
  readings: Readings,
): Evidence {
  const now = mesh?.now ?? null;
  const missing = (ok: boolean, says = NOT_READ): string | null => (ok ? null : says);
  const read = (value: unknown): boolean => value !== null && value !== undefined;
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
    'trial-carrier': () =>
      missing(now !== null && (now.number > 0 || axle.setup?.gears === 'used'), 'not put together on Carrier'),
    'run-out': () => missing(mesh !== null && readings.has(ringRunout.key({ axle: name })), 'run-out not read'),
    backlash: () => missing(read(now?.backlash.trial), 'backlash not read'),
    pattern: () => missing(read(now?.pattern.trial), 'pattern not read'),
    'pinion-preload': () => missing(read(preload?.last), 'turning torque not read'),
    'seal-drag': () => missing(read(preload?.sealNm), 'drag of the seal not read'),
    'total-torque': () => missing(read(preload?.totalNm), 'total turning torque not read'),
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

/** The reading that does a step by itself: of steps that are nothing but reading, and only where it says that they are right. */
export function proofsOf(name: AxleName, { mesh, preload, facts }: Known, readings: Readings): Proofs {
  const now = mesh?.now ?? null;
  const came = mesh?.assemblies.find(({ number }) => number === 0) ?? null;
  const float = (stage: 'trial' | 'final'): InForce | null =>
    (now && readings.get(endFloat.key({ axle: name, assembly: String(now.number), stage }))) ?? null;
  return {
    'measure-shims': () => came?.reading ?? null,
    'readings-before': () => later(mesh?.came.backlash?.reading, mesh?.came.pattern?.reading),
    inspect: () =>
      lastOf(
        readings,
        name,
        inspectSubjects.map(({ what }) => what),
      ),
    'run-out': () => readings.get(ringRunout.key({ axle: name })) ?? null,
    backlash: () => now?.backlash.trial?.reading ?? null,
    pattern: () => now?.pattern.trial?.reading ?? null,
    'next-move': () => (mesh && facts ? settled(mesh, facts.gears === 'stay') : null),
    'pinion-preload': () =>
      mesh && preload && preloadVerdict(mesh, preload) === 'in-band' ? (preload.last?.reading ?? null) : null,
    'seal-drag': () => readings.get(sealDrag.key({ axle: name })) ?? null,
    'total-torque': () => (preload?.totalNm === null || !preload ? null : lastOf(readings, name, [totalTorque.what])),
    'side-preload': () => preload?.side.find(({ verdict }) => verdict === 'fits')?.reading ?? null,
    'final-readings': () => later(now?.backlash.final?.reading, now?.pattern.final?.reading),
    'float-trial': () => float('trial'),
    'float-final': () => float('final'),
    'ring-bolts': () => lastOf(readings, name, [ringBolts.what]),
  };
}
