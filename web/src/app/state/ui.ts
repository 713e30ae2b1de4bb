import { DECIMAL_SIGNS, cutText, type DecimalSign, type UnitSystem } from '@hot-spline/core/page';
import type { AxleName } from '@hot-spline/model';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { deviceStore } from '../base/device-store';

export interface UiState {
  readonly system: UnitSystem;
  readonly night: boolean;
  readonly findingsOpen: boolean;
  /** What was found on other sheets is unfolded below what is of the sheet that is open. */
  readonly elsewhereOpen: boolean;
  /** Tones, and what is done next said aloud. */
  readonly sound: boolean;
  /** The axle that the Line and the sheets follow. */
  readonly axle: AxleName;
  /** Id of the figure whose working is open. */
  readonly working: string | null;
  readonly keysOpen: boolean;
  /** What separates decimals on this device where the shop has not said it; null: by plausibility. */
  readonly decimal: DecimalSign | null;
  /** Whether units and decimal sign were shown to somebody once. */
  readonly asked: boolean;
  /** Who works on this device; stamped on every write. Empty while nobody has said. */
  readonly who: string;
}

export const UI_KEY = 'hot-spline.ui';

/** Countries that build in inches: the United States, Liberia, Myanmar [from memory]; plain English counts as theirs. */
const INCHES = /-(US|LR|MM)\b/i;

/** Units of whoever has chosen none: by the language of the browser. */
export const unitsOf = (language: string): UnitSystem =>
  INCHES.test(language) || language === 'en' ? 'inch' : 'metric';

/**
 * Decimal sign of whoever has chosen none: a comma where the language of the browser writes one. Where it writes a point nothing is
 * assumed: many who work in English write a comma.
 */
export const signOf = (language: string): DecimalSign | null =>
  new Intl.NumberFormat(language).formatToParts(1.5).some(({ type, value }) => type === 'decimal' && value === ',')
    ? 'comma'
    : null;

/** What the builder chose before, on this machine; whatever is not readable is left at its default. */
export function storedUi(text: string | null, prefersNight: boolean, language = 'en-US'): UiState {
  const defaults: UiState = {
    system: unitsOf(language),
    night: prefersNight,
    findingsOpen: true,
    elsewhereOpen: false,
    sound: false,
    decimal: signOf(language),
    asked: false,
    axle: 'rear',
    working: null,
    keysOpen: false,
    who: '',
  };
  if (text === null) return defaults;
  let stored: Partial<UiState>;
  try {
    stored = JSON.parse(text) as Partial<UiState>;
  } catch {
    return defaults;
  }
  return {
    ...defaults,
    system: stored.system === 'metric' || stored.system === 'inch' ? stored.system : defaults.system,
    night: typeof stored.night === 'boolean' ? stored.night : prefersNight,
    findingsOpen: stored.findingsOpen !== false,
    elsewhereOpen: stored.elsewhereOpen === true,
    sound: stored.sound === true,
    decimal:
      DECIMAL_SIGNS.find((sign) => sign === stored.decimal) ?? (stored.decimal === null ? null : defaults.decimal),
    // A device that chose something before is not asked any more.
    asked: stored.asked !== false,
    who: typeof stored.who === 'string' ? cutText(stored.who, 60) : '',
  };
}

export const uiActions = createActionGroup({
  source: 'Interface',
  events: {
    systemChosen: props<{ system: UnitSystem }>(),
    decimalChosen: props<{ decimal: DecimalSign | null }>(),
    asked: emptyProps(),
    unitsFlipped: emptyProps(),
    themeFlipped: emptyProps(),
    findingsFlipped: emptyProps(),
    elsewhereFlipped: emptyProps(),
    soundFlipped: emptyProps(),
    axleChosen: props<{ axle: AxleName }>(),
    workingOpened: props<{ figure: string }>(),
    workingClosed: emptyProps(),
    keysFlipped: emptyProps(),
    whoChosen: props<{ who: string }>(),
  },
});

const other = (system: UnitSystem): UnitSystem => (system === 'inch' ? 'metric' : 'inch');

export const uiFeature = createFeature({
  name: 'ui',
  reducer: createReducer<UiState>(
    storedUi(deviceStore.get(UI_KEY), matchMedia('(prefers-color-scheme: dark)').matches, navigator.language),
    on(uiActions.systemChosen, (state, { system }) => ({ ...state, system })),
    on(uiActions.decimalChosen, (state, { decimal }) => ({ ...state, decimal })),
    on(uiActions.asked, (state) => ({ ...state, asked: true })),
    on(uiActions.unitsFlipped, (state) => ({ ...state, system: other(state.system) })),
    on(uiActions.themeFlipped, (state) => ({ ...state, night: !state.night })),
    on(uiActions.findingsFlipped, (state) => ({ ...state, findingsOpen: !state.findingsOpen })),
    on(uiActions.elsewhereFlipped, (state) => ({ ...state, elsewhereOpen: !state.elsewhereOpen })),
    on(uiActions.soundFlipped, (state) => ({ ...state, sound: !state.sound })),
    on(uiActions.axleChosen, (state, { axle }) => ({ ...state, axle })),
    on(uiActions.workingOpened, (state, { figure }) => ({ ...state, working: figure })),
    on(uiActions.workingClosed, (state) => ({ ...state, working: null })),
    on(uiActions.whoChosen, (state, { who }) => ({ ...state, who })),
    on(uiActions.keysFlipped, (state) => ({ ...state, keysOpen: !state.keysOpen })),
  ),
});
