import { SITUATIONS, InputError, say } from '@hot-spline/core';
import { CRITERION_WORDS, UNIT_TYPE_WORDS, USE_WEIGHTS, rankUnits, speaks, type AxleName } from '@hot-spline/model';
import type { Content } from 'pdfmake/interfaces';
import { axleTitle, h2, p, table } from '../papers/blocks';
import { inSystems, plain, type PaperInput, type PaperLines } from '../shared/paper';
import { SITUATION_NAMES, compareAll, usualAt } from './compared';

/** Of the situations those that a driver knows by their name. */
const SHOWN = ['split-grip', 'wheel-in-air', 'corner-exit', 'overrun-into-corner'] as const;

/** Units side by side for the customer: what each pushes with in each situation, what speaks for and against it for this use. */
function unitsCard(input: PaperInput, axle: AxleName): Content[] {
  const { build, derived, systems } = input;
  const at = usualAt(build, axle, derived);
  const rows = compareAll(build, axle, derived, at);
  if (!rows || rows.length === 0) return [];
  const weights = build.brief.unitWeights ?? USE_WEIGHTS[build.use];
  const ranks = rankUnits(
    build.use,
    rows.map(({ compared }) => compared),
    rows.map(({ results }) => results),
    { inputNm: at.inputNm, wheelNm: rows[0]?.wheelNm ?? 1 },
    weights,
  );
  const said = speaks(ranks, weights);
  const words = (keys: readonly (keyof typeof CRITERION_WORDS)[] = []): string =>
    keys.map((key) => CRITERION_WORDS[key].name.toLowerCase()).join(', ') || '–';
  const order = rows.map((_, i) => i).sort((a, b) => (ranks[b]?.score ?? 0) - (ranks[a]?.score ?? 0));
  return [
    h2(`${axleTitle(input, axle)}units side by side`),
    p(
      plain(
        `Thrust of the axle at ${inSystems(at.inputNm, 'torque', systems, 0)} into the unit, ${say(at.lateralG, 'coefficient', 'metric', 2)} g in the turn. Best for this use on top. Worked out from the car’s figures, not driven.`,
      ),
    ),
    table(
      ['Unit', ...SHOWN.map((name) => SITUATION_NAMES[name]), 'For it', 'Against it'],
      order.map((i) => {
        const row = rows[i] as (typeof rows)[number];
        return [
          `${row.compared.label}${row.compared.own ? ' (in the axle)' : ''}`,
          ...SHOWN.map((name) =>
            inSystems(row.results[SITUATIONS.indexOf(name)]?.thrustN ?? 0, 'force', systems.slice(0, 1), 0),
          ),
          words(said[i]?.for),
          words(said[i]?.against),
        ];
      }),
      [84, 42, 42, 42, 42, '*', '*'],
    ),
  ];
}

/** What can't be worked out is said on its sheet, and is on no paper. */
function orNothing(make: () => Content[]): Content[] {
  try {
    return make();
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return [];
  }
}

const LOCKS = ['selectable-locker', 'automatic-locker', 'spool'];

export const paper: PaperLines = {
  brings: {
    'units-side-by-side': {
      name: 'Units side by side, one page',
      about: 'For the customer: every type of unit in the situations that matter, for this car.',
      nothing: 'This axle can’t be worked out yet.',
    },
  },
  cards: { 'units-side-by-side': (input, axle) => orNothing(() => unitsCard(input, axle)) },
  explains: [/^unit\.\w+\.drive\.lock$/],
  done({ build, derived }, name) {
    const unit = build.axles[name]?.unit;
    if (!unit) return [];
    const fact = derived.work[name]?.facts.unit;
    const how = fact?.startsWith('new') ? ', new' : fact === 'own-overhauled' ? ', overhauled' : '';
    return [`In it: ${UNIT_TYPE_WORDS[unit.type].name}${how}.`];
  },
  todo({ build }, name) {
    const type = build.axles[name]?.unit.type;
    return [
      ...(type === 'plate' ? ['Slow figures of eight first: they wet the plates.'] : []),
      ...(type !== undefined && LOCKS.includes(type)
        ? ['Never raise one wheel with the engine in gear: it drives off its stands.']
        : []),
    ];
  },
  label({ build }, name) {
    const unit = build.axles[name]?.unit;
    return unit ? { what: UNIT_TYPE_WORDS[unit.type].name } : {};
  },
};
