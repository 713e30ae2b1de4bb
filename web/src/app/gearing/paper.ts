import { InputError, LEVEL, findFinals, say } from '@hot-spline/core';
import { findProblemOf, findStandIns, goalOf, reasonWords, scoreWords, type AxleName } from '@hot-spline/model';
import type { Content } from 'pdfmake/interfaces';
import { h2, list, p, saidAt, table } from '../papers/blocks';
import { inSystems, type PaperInput, type PaperLines } from '../shared/paper';
import { goalWords } from './goal-words';
import { choiceOf, type Choice } from './choice';

/** The final drive that is in and why; null where there is none, or it would rest on what nobody has said. */
function judged({ build, derived, systems }: PaperInput): Choice | null {
  try {
    const choice = choiceOf(build, derived, systems[0] ?? 'metric');
    return choice && choice.standIns === '' ? choice : null;
  } catch (error) {
    // What can’t be judged is said on the sheet where it is chosen.
    if (!(error instanceof InputError)) throw error;
    return null;
  }
}

/** Rows of the card: what is behind them nobody chooses. */
const ROWS = 8;

/** The sets that there are for the customer: ranked, with what speaks for and against each. */
function findCard(input: PaperInput, axle: AxleName): Content[] {
  const { build, derived, systems } = input;
  const own = derived.gearing[axle];
  if (axle !== derived.main || !own) return [];
  try {
    const [system = 'metric'] = systems;
    const standIns = findStandIns(build, axle);
    const found = findFinals(findProblemOf(build, axle, own));
    const goal = goalOf(build);
    const best = found[0]?.score ?? 0;
    const level = (score: number): string =>
      goal.kind === 'time' && score !== best && Math.abs(score - best) < LEVEL * best ? ', level' : '';
    const words = (one: (typeof found)[number], side: 'for' | 'against'): string =>
      one.reasons
        .filter((reason) => reason.side === side && reason.code !== 'goal-best')
        .map((reason) => reasonWords(reason, system))
        .join('; ') || '–';
    return [
      h2(`Final drives: ${goalWords(build, system)}`),
      ...(standIns.length > 0
        ? [p(`Nobody has said ${standIns.join(', ')} yet: the order rests on stand-ins and judges nothing.`)]
        : []),
      table(
        ['Set', 'Ratio', 'Goal', 'Cruise', 'Top speed', 'For it', 'Against it'],
        found
          .slice(0, ROWS)
          .map((one) => [
            `${one.candidate.ring}/${one.candidate.pinion}${Math.abs(one.ratio / own.finalRatio - 1) < 1e-6 ? ' (in it)' : ''}`,
            one.ratio.toFixed(3),
            `${scoreWords(goal.kind, one.score)}${level(one.score)}`,
            one.figures.cruiseRpm === null ? '–' : say(one.figures.cruiseRpm, 'rotation', 'inch'),
            inSystems(one.figures.topMps, 'speed', systems.slice(0, 1), 0),
            words(one, 'for'),
            words(one, 'against'),
          ]),
        [54, 34, 58, 50, 50, '*', '*'],
      ),
      p('Worked out from the car’s figures, not driven. What is nearer than half a percent is level.'),
    ];
  } catch (error) {
    // What can’t be worked out is said on its sheet.
    if (!(error instanceof InputError)) throw error;
    return [];
  }
}

export const paper: PaperLines = {
  brings: {
    'final-drives': {
      name: 'Final drives, one page',
      about: 'For the customer: the sets that there are, ranked by the goal, with reasons.',
      nothing: 'No final drive can be ranked yet.',
    },
  },
  cards: { 'final-drives': findCard },
  explains: [/^gearing\.\w+\.final$/, /^gearing\.\w+\.speed$/],
  why(input) {
    const choice = judged(input);
    return choice ? [h2(`Final drive ${choice.pair}, and why`), list(choice.reasons)] : [];
  },
  done(input, name) {
    const axle = input.build.axles[name];
    if (!axle) return [];
    const { ring, pinion } = axle.finalDrive;
    const ratio = `${ring}/${pinion}, ${(ring / pinion).toFixed(3)}`;
    const gears = input.derived.work[name]?.facts.gears;
    const old = saidAt(input, name)('ring-off', 'old-pair');
    return [
      gears === 'stay'
        ? `Final drive ${ratio}: the gears that were in it.`
        : `Final drive ${ratio}${gears === 'used' ? ', another used pair' : ', new gears'}.${old ? ` Before: ${old}.` : ''}`,
    ];
  },
  label({ build }, name) {
    const drive = build.axles[name]?.finalDrive;
    return drive ? { what: `${drive.ring}/${drive.pinion} ${(drive.ring / drive.pinion).toFixed(3)}` } : {};
  },
};
