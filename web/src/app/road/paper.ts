import { InputError, entryBase, roadRun, say } from '@hot-spline/core';
import { finalsOf, finishName, vehicleOf, type AxleName } from '@hot-spline/model';
import type { Content } from 'pdfmake/interfaces';
import { h2, p, table } from '../papers/blocks';
import { inSystems, type PaperInput, type PaperLines } from '../shared/paper';
import { markName } from './marks';

/** The standing start for the customer: every final drive over the marks, and what the car was taken to be. */
function runCard(input: PaperInput, axle: AxleName): Content[] {
  const { build, derived, systems } = input;
  const own = derived.gearing[axle];
  if (axle !== derived.main || !own) return [];
  const [system = 'metric'] = systems;
  const { road, brief } = build;
  try {
    const vehicle = vehicleOf(build, axle, own);
    const distanceM = entryBase(brief.distance);
    const runs = finalsOf(build, own).map(({ label, ratio, present }) => ({
      label,
      present,
      run: roadRun({ ...vehicle, finalRatio: ratio }, { distanceM }),
    }));
    const marks = runs[0]?.run.marks ?? [];
    return [
      h2(`Standing start to ${finishName(brief.distance)}`),
      table(
        ['Final drive', ...marks.map(({ distanceM: at }) => markName(at, system)), 'At the end', 'Shifts'],
        runs.map(({ label, present, run }) => [
          `${label}${present ? ' (in it)' : ''}`,
          ...run.marks.map(({ timeS }) => `${timeS.toFixed(2)} s`),
          inSystems(run.speedMps, 'speed', systems, 1),
          String(run.shifts.length),
        ]),
        [84, ...marks.map(() => '*'), 96, 36],
      ),
      p(
        [
          `${inSystems(entryBase(road.mass), 'mass', systems, 0)} with the driver`,
          `grip ${say(entryBase(road.grip), 'coefficient', 'metric', 2)}`,
          `drag area ${inSystems(entryBase(road.dragArea), 'area', systems)}`,
          `driveline efficiency ${entryBase(road.efficiency)} %`,
          `a shift takes ${entryBase(build.gearbox.shiftTime).toFixed(2)} s`,
        ].join(', ') + '.',
      ),
      p(
        'Worked out, not driven: the clock starts with the car, air and track as entered. What is nearer than half a percent is level.',
      ),
    ];
  } catch (error) {
    // What can’t be worked out is said on its sheet.
    if (!(error instanceof InputError)) throw error;
    return [];
  }
}

export const paper: PaperLines = {
  explains: [/^road\.time$/],
  brings: {
    run: {
      name: 'Run, one page',
      about: 'For the customer: the standing start with each final drive.',
      nothing: 'No run can be worked out yet.',
    },
  },
  cards: { run: runCard },
};
