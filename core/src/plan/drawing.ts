import type { SectionPart } from '../section/parts';

/** Small drawings beside the section: what a hand does, where it stands. */
export const FIGURES = [
  'padlock',
  'tag',
  'turns',
  'match',
  'teeth',
  'stands',
  'plugs',
  'lines',
  'wheel-end',
  'sling',
  'puller',
  'pieces',
  'plate',
  'breakaway',
  'serials',
  'synchro',
  'box-shaft',
  'drum',
  'bolt',
  'star',
  'press',
  'clean',
  'turning',
  'spacer',
  'paste',
  'air-line',
  'end-float',
  'heat-cycles',
  'dummy-pin',
  'v-blocks',
] as const;
export type FigureOfStep = (typeof FIGURES)[number];

/** What stands in the section beside the parts. */
export const AIDS = [
  'indicator-tooth',
  'indicator-ring-back',
  'indicator-shaft',
  'depth-gauge',
  'race-to-flange',
  'cap-marks',
  'match-marks',
  'insert-gap',
  'faces',
  'pin-way',
] as const;
export type SectionAid = (typeof AIDS)[number];

/** The drawing of a step; where there is none, why. */
export type StepDrawing =
  /** The section: what it takes off and puts back is shown by itself; `touches` what else a hand is on. */
  | { readonly of: 'section'; readonly touches: readonly SectionPart[]; readonly aid: SectionAid | null }
  | { readonly of: 'figure'; readonly figure: FigureOfStep }
  | { readonly of: 'none'; readonly why: string };

/** The section with the parts that a hand is on, and what is held against them. */
export const section = (touches: readonly SectionPart[] = [], aid: SectionAid | null = null): StepDrawing => ({
  of: 'section',
  touches,
  aid,
});
export const figure = (name: FigureOfStep): StepDrawing => ({ of: 'figure', figure: name });
export const undrawn = (why: string): StepDrawing => ({ of: 'none', why });
