import type { AssemblyState, MeshAxle } from './state';
import type { Trial } from './schema';

/** What is between two states: backlash there less backlash when closed for good. */
export interface Shift {
  readonly mm: number;
  readonly sigmaMm: number;
  /** Whether it was learned on this axle, and from how many assemblies. */
  readonly learned: number;
}

const THOU = 0.0254;

/** Ours until learned: what each step that is still to come takes off backlash (common practice for the sizes). */
const STEPS: readonly { readonly done: (state: Trial) => boolean; readonly mm: number }[] = [
  { done: ({ caps }) => caps === 'torqued', mm: THOU },
  { done: ({ sideBearings }) => sideBearings !== 'set-up', mm: THOU },
  { done: ({ pinionBearings, spacer }) => pinionBearings !== 'set-up' && spacer !== 'none', mm: 0.5 * THOU },
];

/** All of it together is 1 ± 1 thou: no single step is surer than that (common practice). */
const usual = (state: Trial): Shift => {
  const left = STEPS.filter(({ done }) => !done(state));
  if (left.length === 0) return { mm: 0, sigmaMm: 0, learned: 0 };
  return {
    mm: Math.min(
      THOU,
      left.reduce((total, { mm }) => total + mm, 0),
    ),
    sigmaMm: THOU,
    learned: 0,
  };
};

const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

/** Same shims, read in a trial and closed for good: the difference is what closing up takes. */
const learnedFrom = (assemblies: readonly AssemblyState[]): readonly number[] =>
  assemblies.flatMap(({ backlash: { trial, final } }) => (trial && final ? [mean(trial.mm) - mean(final.mm)] : []));

/** What closing up takes off a backlash that is read in `state`: learned on this axle where it was, else ours. */
export function shiftTo(state: Trial, { assemblies }: Pick<MeshAxle, 'assemblies'>): Shift {
  const ours = usual(state);
  if (ours.mm === 0) return ours;
  const learned = learnedFrom(assemblies);
  if (learned.length === 0) return ours;
  // Normal distributions put together: ours as one reading with its spread, each learned one good to half a thou.
  const each = 1 / (0.5 * THOU) ** 2;
  const own = 1 / ours.sigmaMm ** 2;
  const weight = own + learned.length * each;
  return {
    mm: (own * ours.mm + each * learned.reduce((a, b) => a + b, 0)) / weight,
    sigmaMm: Math.sqrt(1 / weight),
    learned: learned.length,
  };
}
