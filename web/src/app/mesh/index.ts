import type { Derived } from '@hot-spline/model';
import type { WebCapability } from '../shared/descriptor';
import { hasMesh } from './has-mesh';
import { BASELINE_TABS, MESH_TABS } from './tabs';

/** What of the assembly that is in is still to be read: backlash, then the pattern. */
function nextReading({ mesh, main }: Derived) {
  const of = mesh[main];
  if (!of) return null;
  const { now, final } = of;
  const stage = final ? 'final' : 'trial';
  if (of.construction === 'electric-reduction') {
    if (!now) return { sheet: 'baseline', tab: 'came', axle: main, field: `out-left-${main}` };
    return now.endFloatMm.trial === null ? { sheet: 'carrier', axle: main, field: `float-trial-${main}` } : null;
  }
  if (!now) return { sheet: 'baseline', tab: 'came', axle: main, field: `out-pinion-${main}` };
  if (!now.backlash[stage]) return { sheet: 'mesh', tab: 'mesh', axle: main, field: `backlash-1-${main}` };
  return now.pattern[stage] ? null : { sheet: 'mesh', tab: 'mesh', axle: main, field: `flank-drive-${main}` };
}

export const mesh: WebCapability = {
  name: 'mesh',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'baseline',
      name: 'Baseline',
      group: 'Set up',
      key: 'ba',
      tabs: BASELINE_TABS,
      load: () => import('./baseline-sheet').then((m) => m.BaselineSheet),
    },
    {
      sheet: 'depth',
      name: 'Pinion depth',
      group: 'Set up',
      key: 'de',
      tabs: [{ tab: 'depth', label: 'Pinion depth' }],
      shows: hasMesh,
      load: () => import('./depth-sheet').then((m) => m.DepthSheet),
    },
    {
      sheet: 'carrier',
      name: 'Carrier',
      group: 'Set up',
      key: 'ca',
      tabs: [{ tab: 'carrier', label: 'Carrier' }],
      load: () => import('./carrier-sheet').then((m) => m.CarrierSheet),
    },
    {
      sheet: 'mesh',
      name: 'Mesh',
      group: 'Set up',
      key: 'me',
      tabs: MESH_TABS,
      shows: hasMesh,
      load: () => import('./mesh-sheet').then((m) => m.MeshSheet),
      measure: nextReading,
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [],
};
