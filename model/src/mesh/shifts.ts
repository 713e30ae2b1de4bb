import type { Trial } from './schema';
import type { AssemblyState, MeshAxle, Shift } from './axle';

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

export const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

/** Same shims, read in a trial and closed for good: the difference is what closing up takes. */
const learnedFrom = (assemblies: readonly AssemblyState[]): readonly number[] =>
  assemblies.flatMap(({ backlash: { trial, final } }) => (trial && final ? [meanOf(trial.mm) - meanOf(final.mm)] : []));

/** What closing up takes off a backlash that is read in `state`: learned on this axle and on others of its spec, else ours. */
export function shiftTo(state: Trial, { assemblies, past }: Pick<MeshAxle, 'assemblies' | 'past'>): Shift {
  const ours = usual(state);
  if (ours.mm === 0) return ours;
  // Normal distributions put together: ours as one reading with its spread, each learned one good to half a thou on this axle,
  // to a whole one on another.
  const said = [
    ...learnedFrom(assemblies).map((mm) => ({ mm, deviation: 0.5 * THOU })),
    ...past.flatMap(({ closingsMm }) => closingsMm.map((mm) => ({ mm, deviation: THOU }))),
  ];
  if (said.length === 0) return ours;
  let weight = 1 / ours.sigmaMm ** 2;
  let weighed = weight * ours.mm;
  for (const { mm, deviation } of said) {
    weight += 1 / deviation ** 2;
    weighed += mm / deviation ** 2;
  }
  return { mm: weighed / weight, sigmaMm: Math.sqrt(1 / weight), learned: said.length };
}
