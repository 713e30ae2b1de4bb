import type { AxleName } from '../base/names';
import type { Place } from '../frame/finding';

/** Ours, where the sheet says nothing: variation above about 3 thou wants a reason; schools of depth further apart than 6 thou. */
export const MESH_GUARDS = { variationMm: 0.076, packMm: 0.02, schoolsMm: 0.15, notchesApart: 8 } as const;

export const STATION = 'final' as const;
export const at = (axle: AxleName, sheet: string, field: string, tab?: string): Place => ({
  sheet,
  axle,
  field,
  ...(tab === undefined ? {} : { tab }),
});
