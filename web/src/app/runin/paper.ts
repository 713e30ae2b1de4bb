import { entryBase } from '@hot-spline/core';
import { inSystems, type PaperLines } from '../shared/paper';

const RUN_IN: Readonly<Record<string, string>> = {
  'heat-cycles': 'Heat cycles: drive it warm, let it cool fully, and again, as often as the table says.',
  'short-trips': 'Short trips at first, each cooled down fully before the next.',
  distance: 'The distance of the table without full throttle or towing, then change the oil.',
};

export const paper: PaperLines = {
  todo({ build, derived, systems }, name) {
    const runIn = build.axles[name]?.work?.runIn;
    if (!runIn) return [];
    const due = derived.runin[name]?.due ?? [];
    return [
      RUN_IN[runIn.school] ?? '',
      `Oil temperature: at ${inSystems(entryBase(runIn.alarm), 'temperature', systems, 0)} let it cool fully and call us.`,
      ...(entryBase(runIn.distance) > 0
        ? [`Bring it back after ${inSystems(entryBase(runIn.distance), 'distance', systems, 0, 'trip')}.`]
        : []),
      ...(runIn.races > 0 ? [`Have the witness marks on the bolts looked at after ${runIn.races} races.`] : []),
      ...(due.length > 0 ? [`It is due now, by ${due.join(', ')}.`] : []),
      'Torque the wheels once more after the first drive.',
      'A whine that rises: stop driving it and call us. Warranty is on noise that is said at once.',
    ];
  },
};
