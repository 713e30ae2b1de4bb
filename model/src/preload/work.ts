import { entryBase } from '@hot-spline/core';
import { unlessOut, type Readings } from '../frame/readings';
import type { StepIdOf } from '../frame/capability';
import type { AxleWork, GateContext, GateNeed } from '../frame/work';
import type { MeshAxle } from '../mesh/axle';
import { finalBacklash, fromSheet } from '../mesh/gate-needs';
import { sealDrag, totalTorque } from '../mesh/readings';
import { preloadVerdict } from './derive';
import { preloadFigures } from './ids';
import type { PreloadAxle } from './state';
import type { preloadSteps } from './steps';

type PreloadStep = StepIdOf<{ readonly steps: typeof preloadSteps }>;

const missing = (ok: boolean, says: string): string | null => (ok ? null : says);

/** The drag of a pinion that stays against the band of bearings that have run, where its sheet has one. */
function dragNeed(nm: number | null, { sheet }: MeshAxle): Pick<GateNeed, 'met' | 'says'> {
  if (nm === null) return { met: false, says: 'not read' };
  const band = sheet.pinionTorqueUsed?.value;
  if (!band) return { met: true, says: 'read; nobody has said a band for bearings that have run' };
  const met = nm >= entryBase(band.low) - 1e-9 && nm <= entryBase(band.high) + 1e-9;
  return { met, says: met ? 'in band' : 'out of its band' };
}

function totalNeed(nm: number, { value: { low, high } }: NonNullable<MeshAxle['sheet']['totalTorque']>): GateNeed {
  const over = nm > entryBase(high) + 1e-9;
  const met = !over && nm >= entryBase(low) - 1e-9;
  return {
    of: 'total',
    need: 'Total turning torque in band',
    met,
    says: met ? 'in band' : over ? 'over its band' : 'below its band',
  };
}

/** Why the preload of the pinion does not sign; null where it does. */
function preloadLacks(mesh: MeshAxle, preload: PreloadAxle): string | null {
  const { last, sealUnknown } = preload;
  const verdict = preloadVerdict(mesh, preload);
  if (!last) return 'not read';
  if (last.state.pinionBearings !== 'new' && mesh.setup.gears !== 'used') return 'read on set-up bearings';
  if (sealUnknown) return 'seal drag is in it';
  if (mesh.setup.gauges.turning === null) return 'nobody has said what the wrench is good to';
  if (verdict === null) return 'no band';
  return verdict === 'in-band' ? null : verdict.replace('-', ' ');
}

/** What Gate B needs of what turning tells. */
function needsOfB(mesh: MeshAxle, preload: PreloadAxle, { asks, said }: GateContext): readonly GateNeed[] {
  const lacks = preloadLacks(mesh, preload);
  const read = finalBacklash(mesh);
  const out = preload.side.some(({ verdict }) => verdict === 'stop');
  const needs: readonly GateNeed[] = [
    {
      of: 'pinion-preload',
      need: 'Pinion preload in band on the bearings that run',
      met: lacks === null,
      says: lacks ?? 'in band',
    },
    {
      of: 'drag-compared',
      need: 'Drag of the pinion that stays, carrier out',
      ...dragNeed(said('pinion-drag' satisfies PreloadStep, 'drag'), mesh),
    },
    {
      of: 'side-preload',
      need: 'Side preload for good',
      met: read?.state.sidePreload === 'full' && !out,
      says: !read
        ? 'not read in the final state'
        : out
          ? 'out of the band of its method'
          : `side preload ${read.state.sidePreload}`,
    },
  ];
  const asked = needs.filter(({ of }) => (asks.B as readonly string[]).includes(of));
  // Not every job reads it; where it was read it has to be what the sheet says.
  return preload.totalNm !== null && mesh.sheet.totalTorque !== null
    ? [...asked, totalNeed(preload.totalNm, mesh.sheet.totalTorque)]
    : asked;
}

/** What turning tells of the work on an axle. @param preload null where it could not be worked out, or nobody has begun */
export function preloadWork(
  mesh: MeshAxle | null,
  preload: PreloadAxle | null,
  readings: Readings,
): AxleWork<PreloadStep> {
  const total = mesh && readings.get(totalTorque.key({ axle: mesh.axle, stage: 'final' }));
  const told = mesh?.sheet.totalTorque?.value ?? null;
  const steps: AxleWork<PreloadStep>['steps'] = {
    'pinion-preload': {
      missing: () =>
        preload?.last
          ? missing(!mesh || preloadVerdict(mesh, preload) !== 'go-on', 'turning torque below its band')
          : 'turning torque not read',
      proof: () =>
        mesh && preload && preloadVerdict(mesh, preload) === 'in-band' ? (preload.last?.reading ?? null) : null,
    },
    'seal-drag': {
      missing: () => missing((preload?.sealNm ?? null) !== null, 'drag of the seal not read'),
      proof: () => (mesh && readings.get(sealDrag.key({ axle: mesh.axle }))) ?? null,
    },
    'total-torque': {
      missing: () => missing(total !== null && total !== undefined, 'total turning torque not read'),
      proof: () => unlessOut(total ?? null, told && [entryBase(told.low), entryBase(told.high)]),
    },
    'side-preload': {
      missing: () =>
        missing(
          preload?.side.some(({ value, said }) => value !== null || said !== null) ?? false,
          'side preload read by no method',
        ),
      proof: () => preload?.side.find(({ verdict }) => verdict === 'fits')?.reading ?? null,
    },
  };
  if (!mesh || mesh.construction === 'electric-reduction') return { steps };
  if (!preload) {
    const lost = (): readonly GateNeed[] => [
      {
        of: 'worked-out',
        need: 'Turning torque can be worked out',
        met: false,
        says: 'what is missing stands on Preload',
      },
    ];
    return { steps, needs: { A: lost, B: lost } };
  }
  return {
    steps,
    needs: {
      A: ({ asks }) =>
        asks.B.includes('pinion-preload')
          ? [fromSheet('Turning-torque band from a sheet', preload.band !== null, preload.band?.weak ?? false)]
          : [],
      B: (context) => needsOfB(mesh, preload, context),
    },
    figures: preload.last ? { [preloadFigures.pinion(mesh.axle)]: preload.last.nm } : {},
  };
}
