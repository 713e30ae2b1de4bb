import { say } from '@hot-spline/core';
import {
  TRIAL_WORDS,
  backlashOf,
  capital,
  floatOf,
  meshFigures,
  patchWords,
  patternOf,
  type AxleName,
  type SheetKey,
} from '@hot-spline/model';
import { axleTitle, figureRows, figureText, h2, p, table } from '../papers/blocks';
import { sheetText } from '../papers/sheet-text';
import { inSystems, type PaperInput, type PaperLines } from '../shared/paper';
import { flankSvg } from './pattern-drawing';

/** Which value of the spec sheet a reading is held against. */
const SHEET_OF: Readonly<Record<string, SheetKey>> = {
  backlash: 'backlash',
  'end-float': 'endFloat',
  'ring-runout': 'runout',
  'case-spread': 'spreadLimit',
};

/** Every assembly: what it was put together with and what it read. */
function assemblies({ derived, systems }: PaperInput, name: AxleName): readonly (readonly string[])[] {
  const small = (mm: number): string => inSystems(mm, 'length', systems, undefined, 'small');
  return (derived.mesh[name]?.assemblies ?? []).map((one) => {
    const lash = backlashOf(one);
    const seen = patternOf(one);
    const float = floatOf(one);
    const { leftNotches, rightNotches } = one.value;
    const read =
      float !== null
        ? `float ${small(float)}`
        : lash
          ? `${small(lash.round.minMm)} to ${small(lash.round.maxMm)}`
          : '–';
    return [
      one.number === 0 ? 'as it came' : String(one.number),
      small(one.pinionMm),
      leftNotches || rightNotches
        ? `${leftNotches} / ${rightNotches} notches`
        : `${small(one.leftMm)} / ${small(one.rightMm)}`,
      read,
      seen ? `drive ${patchWords(seen.value.drive)}; coast ${patchWords(seen.value.coast)}` : '–',
    ];
  });
}

export const paper: PaperLines = {
  explains: [/^mesh\.\w+\.(backlash|float)$/, /^mesh\.\w+\.shim$/],
  against(input, { subject }, axle) {
    const key = SHEET_OF[subject.what];
    return key ? (sheetText(input, axle, key) ?? 'not said') : null;
  },
  /** The pattern of what is in now, in words and drawn. */
  found(input, name) {
    const now = input.derived.mesh[name]?.now;
    const seen = now && patternOf(now);
    if (!seen) return [];
    const flank = (of: 'drive' | 'coast') => ({
      width: 150,
      stack: [{ svg: flankSvg(seen.value[of]), width: 140 }, p(`${of}: ${patchWords(seen.value[of])}`)],
    });
    return [
      h2(capital(`${axleTitle(input, name)}pattern`)),
      { columns: [flank('drive'), flank('coast')], columnGap: 12, unbreakable: true },
    ];
  },
  reads(input, name) {
    const band = sheetText(input, name, 'backlash');
    return [
      { what: 'Backlash, least', id: meshFigures.least(name) },
      { what: 'Backlash, most', id: meshFigures.most(name) },
    ].flatMap(({ what, id }) => {
      const read = figureText(input, id);
      return read === null ? [] : [{ what, read, band }];
    });
  },
  label(input, name) {
    const system = input.systems[0] ?? 'metric';
    const one = { ...input, systems: [system] };
    const now = input.derived.mesh[name]?.now ?? null;
    const seen = now && patternOf(now);
    const [least, most, shim] = [meshFigures.least(name), meshFigures.most(name), meshFigures.shim(name)].map((id) =>
      figureText(one, id),
    );
    const small = (mm: number): string => say(mm, 'length', system, undefined, 'small');
    const sides = now && now.leftMm + now.rightMm > 0 ? `, sides ${small(now.leftMm)} / ${small(now.rightMm)}` : '';
    return {
      ...(shim ? { shims: `pinion shim ${shim}${sides}` } : {}),
      ...(least && most ? { backlash: `backlash ${least}–${most}` } : {}),
      ...(seen ? { pattern: `drive ${patchWords(seen.value.drive)}; coast ${patchWords(seen.value.coast)}` } : {}),
    };
  },
  brings: {
    'set-up-card': {
      name: 'Set-up card',
      about: 'Shims, backlash, pattern and preload, try by try.',
      nothing: 'No set-up has begun.',
    },
  },
  cards: {
    /** What a set-up was put together with and read, by assembly. */
    'set-up-card'(input, name) {
      const mesh = input.derived.mesh[name];
      if (!mesh) return [];
      const state = Object.entries(mesh.setup.state).map(([key, value]) => {
        const words = TRIAL_WORDS[key as keyof typeof TRIAL_WORDS] as Readonly<Record<string, string>>;
        return `${words['label'] ?? key} ${words[value] ?? value}`;
      });
      return [
        h2(`${axleTitle(input, name)}${input.build.axles[name]?.identity?.name ?? 'axle'}`),
        table(['Assembly', 'Pinion shim', 'Left / right', 'Backlash', 'Pattern'], assemblies(input, name), [
          52,
          78,
          100,
          100,
          '*',
        ]),
        table(
          ['Now', ''],
          figureRows(input, [
            meshFigures.shim(name),
            meshFigures.mean(name),
            meshFigures.least(name),
            meshFigures.most(name),
          ]),
          [200, '*'],
        ),
        p(`State: ${state.join(', ')}.`),
      ];
    },
  },
};
