import type { OperatingPoint } from '@hot-spline/model';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { deviceStore } from '../base/device-store';

/** Where this device looks: it is nobody else's, and no version of a build. */
export interface LookingState {
  /** The operating point by the id of the build. */
  readonly points: Readonly<Record<string, OperatingPoint>>;
  /** What is being dragged: shown everywhere, kept nowhere. */
  readonly dragged: OperatingPoint | null;
}

export const LOOKING_KEY = 'hot-spline.looking';
/** So many builds are remembered, the last ones looked at. */
const MOST = 200;

const isPoint = (value: unknown): value is OperatingPoint => {
  if (typeof value !== 'object' || value === null) return false;
  const { gear, range, rpm } = value as Partial<OperatingPoint>;
  return [gear, range, rpm].every((one) => typeof one === 'number' && Number.isFinite(one) && one >= 0);
};

/** What was looked at before, on this device; whatever is not readable is left out. */
export function storedLooking(text: string | null): LookingState {
  let stored: unknown = null;
  try {
    stored = JSON.parse(text ?? 'null');
  } catch {
    stored = null;
  }
  const points = typeof stored === 'object' && stored !== null ? Object.entries(stored) : [];
  return { points: Object.fromEntries(points.filter(([, point]) => isPoint(point))), dragged: null };
}

export const lookingActions = createActionGroup({
  source: 'Looking',
  events: {
    pointKept: props<{ id: string; point: OperatingPoint }>(),
    pointDragged: props<{ point: OperatingPoint }>(),
    dragEnded: emptyProps(),
  },
});

export const lookingFeature = createFeature({
  name: 'looking',
  reducer: createReducer<LookingState>(
    storedLooking(deviceStore.get(LOOKING_KEY)),
    on(lookingActions.pointKept, ({ points }, { id, point }) => {
      const { [id]: _, ...others } = points;
      return {
        points: Object.fromEntries([...Object.entries(others), [id, point] as const].slice(-MOST)),
        dragged: null,
      };
    }),
    on(lookingActions.pointDragged, (state, { point }) => ({ ...state, dragged: point })),
    on(lookingActions.dragEnded, (state) => ({ ...state, dragged: null })),
  ),
});
