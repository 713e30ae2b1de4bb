import { entryBase } from '@hot-spline/core';
import { SIDES, capital, packFigures } from '@hot-spline/model';
import { axleTitle, figureRows, h2, p, table } from '../papers/blocks';
import { inSystems, type PaperLines } from '../shared/paper';

export const paper: PaperLines = {
  explains: [/^pack\.\w+\.left\.height$/, /^pack\.\w+\.right\.height$/, /^pack\.\w+\.wrench/],
  brings: {
    'pack-card': {
      name: 'Pack card',
      about: 'Both packs, piece by piece, and what the wrench reads.',
      nothing: 'No clutch packs in it.',
    },
  },
  cards: {
    /** The packs, piece by piece outwards from the gear. */
    'pack-card'(input, name) {
      const { derived, build, systems } = input;
      const packs = derived.axles[name]?.pack;
      const plate = build.axles[name]?.unit.plate;
      if (!packs || !plate) return [];
      const say = (mm: number, scale: 'plate' | 'small'): string => inSystems(mm, 'length', systems, undefined, scale);
      const target = say(entryBase(plate.targetHeight), 'plate');
      return [
        h2(capital(`${axleTitle(input, name)}clutch packs`)),
        p(`Target ${target} ± ${say(entryBase(plate.tolerance), 'small')}. Outwards from the gear:`),
        {
          columnGap: 16,
          columns: SIDES.map((side) => ({
            width: '50%',
            stack: [
              { text: side, bold: true },
              table(
                ['', 'Piece', 'Thickness'],
                packs[side].members.map(({ member, thicknessMm, reading }, i) => [
                  String(i + 1),
                  member.label,
                  `${say(thicknessMm, 'plate')}${reading ? '' : ' nominal'}`,
                ]),
                [14, 80, '*'],
              ),
              table(['', ''], figureRows(input, [packFigures.height(name, side)]), [90, '*']),
            ],
          })),
        },
        table(
          ['Wrench', ''],
          figureRows(input, [packFigures.wrench(name, 'other-wheel-held'), packFigures.wrench(name, 'carrier-held')]),
          [220, '*'],
        ),
      ];
    },
  },
};
