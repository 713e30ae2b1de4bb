import { preloadFigures, type AxleName, type SheetKey } from '@hot-spline/model';
import { figureRows, figureText, table } from '../papers/blocks';
import { sheetText } from '../papers/sheet-text';
import type { PaperLines } from '../shared/paper';

const pinionTorque = (bearings: string | undefined): SheetKey =>
  bearings === 'new' ? 'pinionTorqueNew' : 'pinionTorqueUsed';
const pinion = (name: AxleName) => preloadFigures.pinion(name);

export const paper: PaperLines = {
  explains: [/^preload\.\w+\.pinion$/],
  against(input, { subject, state }, axle) {
    const key =
      subject.what === 'total-torque'
        ? 'totalTorque'
        : subject.what === 'pinion-torque'
          ? pinionTorque(state['pinionBearings'])
          : null;
    return key && (sheetText(input, axle, key) ?? 'not said');
  },
  reads(input, name) {
    const read = figureText(input, pinion(name));
    const bearings = input.derived.preload[name]?.last?.state.pinionBearings;
    return read === null
      ? []
      : [{ what: 'Pinion turning torque', read, band: sheetText(input, name, pinionTorque(bearings)) }];
  },
  label(input, name) {
    const read = figureText({ ...input, systems: input.systems.slice(0, 1) }, pinion(name));
    return read === null ? {} : { preload: `preload ${read}` };
  },
  cards: {
    'set-up-card'(input, name) {
      const rows = input.derived.mesh[name] ? figureRows(input, [pinion(name), preloadFigures.carrier(name)]) : [];
      return rows.length === 0 ? [] : [table(['Preload', ''], rows, [200, '*'])];
    },
  },
};
