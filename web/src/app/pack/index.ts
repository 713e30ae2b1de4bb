import { SIDES, packFigures, platesOf, type AxleName } from '@hot-spline/model/document';
import type { WebCapability } from '../shared/descriptor';
import { PACK_TABS } from './tabs';

/** The measuring field of a piece. */
export const measureField = (side: string, id: string): string => `measure-${side}-${id}`;

export const pack: WebCapability = {
  name: 'pack',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'pack',
      name: 'Clutch packs',
      group: 'Specify',
      key: 'pk',
      tabs: PACK_TABS,
      load: () => import('./pack-sheet').then((m) => m.PackSheet),
      measure({ axles, main }) {
        const packs = axles[main]?.pack;
        if (!packs) return null;
        const fields = SIDES.flatMap((side) => [
          ...packs[side].members.map(({ member, reading }) => ({ side, id: member.id, reading })),
          ...(packs[side].members.length > 0 ? [{ side, id: 'stack', reading: packs[side].stackReading }] : []),
          { side, id: 'depth', reading: packs[side].caseDepthReading },
        ]);
        const next = fields.find(({ reading }) => !reading) ?? fields[0];
        return next ? { sheet: 'pack', tab: 'measure', axle: main, field: measureField(next.side, next.id) } : null;
      },
      parts: ({ axles }) =>
        (Object.entries(axles) as [AxleName, typeof axles.rear][]).flatMap(([axle, spec]) =>
          SIDES.flatMap((side) =>
            (spec?.unit.plate?.packs[side].members ?? []).map((member, i) => ({
              name: `${side} ${i + 1} ${member.label}`,
              more: member.thickness.typed,
              place: { sheet: 'pack', tab: 'measure', axle, field: measureField(side, member.id) },
            })),
          ),
        ),
    },
  ],
  papers: () => import('./paper').then((m) => m.paper),
  stations: [
    {
      kind: 'packs',
      sheet: 'pack',
      show({ build, derived: { main }, figure }) {
        if (!platesOf(build.axles[main]?.unit)) return null;
        return {
          name: 'Packs',
          main: figure(packFigures.wrench(main, 'other-wheel-held'), 0),
          sub: 'breakaway, neutral',
        };
      },
    },
  ],
};
