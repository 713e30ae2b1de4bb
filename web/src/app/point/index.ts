import { say } from '@hot-spline/core/page';
import { gearingFigures, pointFigures, type Build } from '@hot-spline/model/document';
import { ratioText } from '../shared/ratio-text';
import type { WebCapability } from '../shared/descriptor';

const rpmText = (value: number): string => say(value, 'rotation', 'inch');
const isElectric = ({ engine }: Build): boolean => engine.kind === 'electric';

export const point: WebCapability = {
  name: 'point',
  fields: () => import('./fields').then((m) => m.FIELDS),
  sheets: [
    {
      sheet: 'engine',
      name: 'Engine and gearbox',
      group: 'Specify',
      key: 'en',
      tabs: [],
      load: () => import('./engine-sheet').then((m) => m.EngineSheet),
    },
  ],
  frame: { line: () => import('./kept-points').then((m) => m.KeptPoints) },
  stations: [
    {
      kind: 'engine',
      sheet: 'engine',
      show: ({ build, derived, figure }) => ({
        name: isElectric(build) ? 'Motor' : 'Engine',
        main: figure(pointFigures.engine(), 0),
        sub: rpmText(derived.point.rpm),
      }),
    },
    {
      kind: 'coupling',
      sheet: 'engine',
      show({ build: { coupling }, figure, number }) {
        switch (coupling.kind) {
          case 'clutch': {
            const holds = number(pointFigures.coupling()) >= 1;
            const sub = holds ? 'holds over peak' : 'slips below peak';
            return { name: 'Clutch', main: `×${figure(pointFigures.coupling())}`, sub };
          }
          case 'converter':
            return { name: 'Converter', main: rpmText(coupling.stallRpm), sub: 'rated stall' };
          case 'direct':
            return null;
        }
      },
    },
    {
      kind: 'gearbox',
      sheet: 'engine',
      show({ build: { gearbox }, derived, number }) {
        const gear = gearbox.gears[derived.point.gear];
        return {
          name: gearbox.kind === 'fixed' ? 'First stage' : `Gear ${gear?.name ?? ''}`,
          main: gear ? ratioText(gear.ratio.value, gear.ratio.typed) : '–',
          sub: `${rpmText(number(pointFigures.gearboxRpm()))} out`,
        };
      },
    },
    {
      kind: 'transfer',
      sheet: 'engine',
      show({ build: { transfer }, derived, figure }) {
        const range = transfer?.ranges[derived.point.range];
        if (!range) return null;
        const mismatch = figure(gearingFigures.mismatch());
        return {
          name: `Range ${range.name}`,
          main: ratioText(range.ratio.value, range.ratio.typed),
          sub: mismatch === '–' ? 'transfer' : `${mismatch} front`,
        };
      },
    },
    {
      kind: 'prop',
      sheet: 'gearing',
      show({ build, figure, number }) {
        if (isElectric(build) || build.gearbox.kind === 'fixed') return null;
        return {
          name: 'Prop shaft',
          main: figure(pointFigures.prop(), 0),
          sub: rpmText(number(pointFigures.propRpm())),
        };
      },
    },
  ],
};
