import { unlessOut, type InForce, type Readings } from '../frame/readings';
import type { AxleWork, StepKnowledge, StepNumber } from '../frame/work';
import { floatOf } from './float';
import { floatNeeds, meshNeedsOfA, meshNeedsOfB, settled } from './gate-needs';
import { meshFigures } from './ids';
import { endFloat, ringRunout } from './readings';
import type { MeshAxle } from './axle';
import { backlashOf } from './state';
import type { meshSteps } from './steps';
import type { StepIdOf } from '../frame/capability';

/** A step that the mesh brings. */
export type MeshStep = StepIdOf<{ readonly steps: typeof meshSteps }>;

const missing = (ok: boolean, says: string): string | null => (ok ? null : says);
const read = (value: unknown): boolean => value !== null && value !== undefined;

/** The later of readings that are all there; null where one is missing. */
function later(...all: readonly (InForce | null | undefined)[]): InForce | null {
  let last: InForce | null = null;
  for (const one of all) {
    if (!one) return null;
    if (last === null || one.seq > last.seq) last = one;
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

/** Shims that are in, by place and side, and what backlash was before: each at the steps that are worked by it. */
function numbersOf({
  now,
  axle,
  ringBy,
  came,
}: MeshAxle): Readonly<Partial<Record<MeshStep, () => readonly StepNumber[]>>> {
  if (!now) return {};
  const where = now.number === 0 ? 'as it came' : `assembly ${now.number}`;
  const shims = (label: string, mm: number): StepNumber => ({
    label,
    typed: null,
    mm,
    where,
    place: { sheet: 'carrier', field: `carrier-${axle}` },
  });
  const pinion = () => [shims('Pinion shim', now.pinionMm)];
  const sides = () =>
    ringBy === 'adjusters' || ringBy === 'none'
      ? []
      : [shims('Left shims', now.leftMm), shims('Right shims', now.rightMm)];
  const before = came.backlash;
  const was = () => (before ? [{ ...shims('Backlash before, mean', before.round.meanMm), where: 'as it came' }] : []);
  return {
    'pinion-bearing': pinion,
    'cup-home': pinion,
    'support-back': pinion,
    'trial-carrier': () => [...pinion(), ...sides()],
    'carrier-bearings': sides,
    'carrier-final': sides,
    backlash: was,
    'final-readings': was,
  };
}

/** What is missing of each step of the mesh, and what does it by having been read. */
function stepsOf(mesh: MeshAxle, readings: Readings): Readonly<Partial<Record<MeshStep, StepKnowledge>>> {
  const { axle, now, setup } = mesh;
  // How it came is no trial: the loop begins with the first time that it is put together.
  const tried = now !== null && now.number > 0 ? now : null;
  const came = mesh.assemblies.some(({ number }) => number === 0);
  const runout = readings.get(ringRunout.key({ axle })) ?? null;
  const float = (stage: 'trial' | 'final'): StepKnowledge => ({
    missing: () => missing(read(now?.endFloatMm[stage]), 'end float not read'),
    proof: () =>
      unlessOut(
        (now && readings.get(endFloat.key({ axle, assembly: String(now.number), stage }))) ?? null,
        mesh.floatBand,
      ),
  });
  return {
    'measure-shims': {
      missing: () => missing(came, 'no shim written on Baseline'),
      proof: () => cameWhole(mesh),
    },
    'readings-before': {
      // With another pair the old mesh is no target: who wants its readings takes them.
      missing: (facts) => missing(facts?.gears !== 'stay' || read(mesh.came.backlash), 'backlash as it came not read'),
      proof: () => later(mesh.came.backlash?.reading, mesh.came.pattern?.reading),
    },
    depth: { missing: () => missing(read(setup.depth.headReading), 'depth not measured on Depth') },
    'trial-carrier': { missing: () => missing(tried !== null, 'not put together on Carrier') },
    'run-out': { missing: () => missing(runout !== null, 'run-out not read'), proof: () => runout },
    backlash: {
      missing: () => missing(read(tried?.backlash.trial), 'backlash not read'),
      proof: () => tried?.backlash.trial?.reading ?? null,
    },
    pattern: {
      missing: () => missing(read(tried?.pattern.trial), 'pattern not read'),
      // Faint, or under light drag, it says nothing.
      proof: () => (tried?.pattern.trial?.counts ? tried.pattern.trial.reading : null),
    },
    'next-move': {
      proof: (facts) => (tried && facts ? settled(mesh, 'trial', facts.gears === 'stay') : null),
    },
    'final-readings': {
      missing: () =>
        missing(read(now?.backlash.final) && read(now?.pattern.final), 'final backlash and pattern not read'),
      proof: (facts) => (facts ? settled(mesh, 'final', facts.gears === 'stay') : null),
    },
    'float-trial': float('trial'),
    'float-final': float('final'),
  };
}

/** Figures of the mesh that a signature stands for. */
function figuresOf(mesh: MeshAxle): Readonly<Record<string, number>> {
  const { axle, now, construction } = mesh;
  if (!now) return {};
  if (construction === 'electric-reduction') {
    const mm = floatOf(now);
    return {
      assembly: now.number,
      [meshFigures.shim(axle)]: now.leftMm,
      ...(mm !== null && { [meshFigures.float(axle)]: mm }),
    };
  }
  const backlash = backlashOf(now);
  return {
    assembly: now.number,
    [meshFigures.shim(axle)]: now.pinionMm,
    [meshFigures.ring(axle)]: now.ringMm,
    ...(backlash && {
      [meshFigures.mean(axle)]: backlash.round.meanMm,
      [meshFigures.least(axle)]: backlash.round.minMm,
      [meshFigures.most(axle)]: backlash.round.maxMm,
    }),
  };
}

/** What is missing where no set-up was begun: nothing of it was written or read. */
const NOT_BEGUN: Readonly<Partial<Record<MeshStep, StepKnowledge>>> = {
  'measure-shims': { missing: () => 'no shim written on Baseline' },
  'readings-before': { missing: (facts) => missing(facts?.gears !== 'stay', 'backlash as it came not read') },
  depth: { missing: () => 'depth not measured on Depth' },
  'trial-carrier': { missing: () => 'not put together on Carrier' },
  'run-out': { missing: () => 'run-out not read' },
  backlash: { missing: () => 'backlash not read' },
  pattern: { missing: () => 'pattern not read' },
  'final-readings': { missing: () => 'final backlash and pattern not read' },
  'float-trial': { missing: () => 'end float not read' },
  'float-final': { missing: () => 'end float not read' },
};

/** What the mesh knows of the work on an axle. @param mesh null where its set-up was not begun */
export function meshWork(mesh: MeshAxle | null, readings: Readings): AxleWork<MeshStep> {
  if (!mesh) return { steps: NOT_BEGUN };
  const { axle, construction } = mesh;
  const steps = stepsOf(mesh, readings);
  const numbers = numbersOf(mesh);
  const shim = meshFigures.shim(axle);
  const keys = { A: [shim], B: ['assembly', shim] };
  const electric = construction === 'electric-reduction';
  const float = electric ? floatNeeds(mesh) : null;
  return {
    steps: Object.fromEntries(
      [...new Set([...Object.keys(steps), ...Object.keys(numbers)] as MeshStep[])].map((id) => [
        id,
        { ...steps[id], ...(numbers[id] && { numbers: numbers[id] }) },
      ]),
    ) as Readonly<Partial<Record<MeshStep, StepKnowledge>>>,
    needs: float
      ? { A: () => float.A, B: () => float.B }
      : { A: (context) => meshNeedsOfA(mesh, context), B: (context) => meshNeedsOfB(mesh, context) },
    figures: figuresOf(mesh),
    signs: electric
      ? {
          about: { A: 'Before the case is bolted up for good.', B: 'Before inverter and shafts go on.' },
          keys,
          stale: 'for another shim',
        }
      : {
          about: { A: 'Before a final bearing is pressed or a spacer is crushed.', B: 'Before the cover goes on.' },
          keys,
          stale: 'for another pinion shim',
        },
    begun: mesh.now !== null,
  };
}
