import { BOX_SHAFTS, boxRatio } from '@hot-spline/core';
import { boxFigures, boxSubjects, pairName, teethText } from '@hot-spline/model';
import type { Content } from 'pdfmake/interfaces';
import { h2, p, table } from '../papers/blocks';
import { inSystems, type PaperInput, type PaperLines } from '../shared/paper';

const VERDICTS = { fits: 'fits', 'can-fit': 'can fit', jams: 'jams', loose: 'loose' } as const;

/** What is in the gearbox: every pair with how it stands on its centres and what it has run, and the float of each shaft. */
function boxLines({ build, derived, systems }: PaperInput): Content[] {
  const [inside, state] = [build.box, derived.box];
  if (!inside || !state) return [];
  const rows = state.judged.pairs.map(({ pair, centres, overlap }) => [
    pairName(inside, pair),
    teethText(pair),
    boxRatio(inside, pair).toFixed(3),
    centres ? VERDICTS[centres.verdict] : 'no mesh',
    overlap && derived.figures.has(boxFigures.worstOverlap()) ? `${(100 * overlap.worstShare).toFixed(0)} %` : '–',
    `${(state.hours.get(pair.id) ?? 0).toFixed(1)} h`,
  ]);
  const floats = BOX_SHAFTS.flatMap((shaft) => {
    const { now, heatMm, approved } = state.floats[shaft];
    if (!now || now.floatMm === null) return [];
    const small = (mm: number): string => inSystems(mm, 'length', systems, undefined, 'small');
    const shim = now.shimMm === null ? '' : `, shim ${small(now.shimMm)}`;
    const hot = heatMm === null ? '' : `, hot ${small(now.floatMm + heatMm)}`;
    const by = approved ? `, approved${approved.who === '' ? '' : ` by ${approved.who}`}` : ', not approved';
    return [`${boxSubjects.SHAFT_WORDS[shaft]}: end float ${small(now.floatMm)}${shim}${hot}${by}.`];
  });
  return [
    h2('What is in the gearbox'),
    table(['Pair', 'Teeth', 'Ratio', 'On its centres', 'Faces, worst', 'Run'], rows, ['*', 50, 50, 80, 70, 50]),
    ...floats.map((line) => p(`${line[0]?.toUpperCase() ?? ''}${line.slice(1)}`)),
  ];
}

export const paper: PaperLines = { why: boxLines };
