import { entryOf } from '@hot-spline/core';
import {
  BOX_LESSON,
  FLOAT_LESSON,
  boxFloats,
  LESSONS,
  floatUnit,
  practiceAxle,
  type BoxFloats,
  type FloatUnit,
  type PracticeAxle,
} from '@hot-spline/core/practice';
import { newBuild } from '../start/new-build';
import type { Build } from '../frame/document';
import { newAxleSpec } from '../library/new-spec';
import type { Construction } from '../library/schema';
import { NEW_BOX_ASSUMED, newBox } from '../box/new-box';
import { newSetup } from '../mesh/new-setup';
import type { Practice } from './schema';

const sheet = <T>(value: T) => ({ value, origin: 'maker' as const, where: 'practice sheet' });
const nm = (value: number) => entryOf(value, 'N·m');
const mm = (value: number) => entryOf(value, 'mm');

/** Travel of the adjusters of every practice axle. */
const ADJUSTERS = { pitchMm: 1.5, notches: 24 } as const;

/** The axle behind a practice build; null for any other build. @throws InputError on `lesson` for one that is not known */
export const practiceAxleOf = ({ practice }: Pick<Build, 'practice'>): PracticeAxle | null =>
  practice && practice.lesson !== FLOAT_LESSON.id && practice.lesson !== BOX_LESSON.id
    ? practiceAxle(practice.lesson, practice.seed)
    : null;

/** The unit behind a practice build whose one shim sets end float; null for any other build. */
export const floatUnitOf = ({ practice }: Pick<Build, 'practice'>): FloatUnit | null =>
  practice?.lesson === FLOAT_LESSON.id ? floatUnit(FLOAT_LESSON.seed) : null;

/** The box behind a practice build whose shims set its floats; null for any other build. */
export const boxFloatsOf = ({ practice }: Pick<Build, 'practice'>): BoxFloats | null =>
  practice?.lesson === BOX_LESSON.id ? boxFloats(BOX_LESSON.seed) : null;

/** All lessons that can be started. */
export const PRACTICE_LESSONS: readonly {
  readonly id: string;
  readonly title: string;
  readonly teaches: string;
  /** Null where no axle is in it. */
  readonly construction: Construction | null;
}[] = [...LESSONS, FLOAT_LESSON, { ...BOX_LESSON, construction: null }];

/**
 * A build to practise on: an ordinary car, a made-up axle with its sheet, nothing measured.
 * @throws InputError on `lesson` or `seed`
 */
export function practiceBuild(practice: Practice): Build {
  const float = floatUnitOf({ practice });
  if (float) return floatBuild(practice, float);
  const floats = boxFloatsOf({ practice });
  if (floats) return boxBuild(practice, floats);
  const axle = practiceAxle(practice.lesson, practice.seed);
  const title = LESSONS.find(({ id }) => id === practice.lesson)?.title ?? `axle ${practice.seed}`;
  const build = newBuild(`Practice: ${title}`);
  const { rear } = build.axles;
  if (!rear) return build;
  rear.finalDrive = { ring: axle.ringTeeth, pinion: axle.pinionTeeth };
  rear.identity = newAxleSpec(`Practice, ${title}`, axle.construction, 'maker');
  const [low, high] = axle.specBacklashMm;
  Object.assign(rear.identity.sheet, {
    backlash: sheet({ low: mm(low), high: mm(Number(high.toFixed(3))) }),
    // Ours, invented for practice.
    pinionTorqueNew: sheet({ low: nm(1.7), high: nm(2.3) }),
    pinionTorqueUsed: sheet({ low: nm(0.8), high: nm(1.3) }),
    adjusterPitch: sheet(mm(ADJUSTERS.pitchMm)),
    adjusterNotches: sheet(ADJUSTERS.notches),
    spreadLimit: sheet(mm(0.5)),
  });
  const setup = newSetup();
  rear.setup = {
    ...setup,
    gauges: { backlash: null, turning: { name: 'Simulated wrench', plusMinus: nm(0.06) } },
    bearingMoves: axle.construction === 'transaxle' ? 'deeper' : null,
    // A box shaft has no usual direction: the practice sheet says it.
    shimMoves: axle.construction === 'transaxle' ? axle.addingShimMovesPinion : null,
  };
  return { ...build, practice };
}

function floatBuild(practice: Practice, { construction, specFloatMm: [low, high] }: FloatUnit): Build {
  const build = newBuild(`Practice: ${FLOAT_LESSON.title}`);
  const { rear } = build.axles;
  if (!rear) return build;
  rear.identity = newAxleSpec(`Practice, ${FLOAT_LESSON.title}`, construction, 'maker');
  Object.assign(rear.identity.sheet, { endFloat: sheet({ low: mm(low), high: mm(high) }) });
  rear.setup = newSetup();
  return { ...build, practice };
}

/** Teeth of the practice box: ours. */
const BOX_TEETH = [
  [13, 35],
  [17, 31],
  [21, 27],
  [25, 23],
] as const;

function boxBuild(practice: Practice, { shafts }: BoxFloats): Build {
  const build = newBuild(`Practice: ${BOX_LESSON.title}`);
  build.gearbox.gears = BOX_TEETH.map(([driver, driven], i) => ({
    name: String(i + 1),
    ratio: { typed: `${driven}/${driver}`, value: driven / driver, unit: '' },
  }));
  const box = newBox(build);
  if (!box) return build;
  for (const shaft of ['driving', 'driven'] as const) {
    const [low, high] = shafts[shaft].bandMm;
    box.shafts[shaft].float = { low: mm(low), high: mm(high) };
  }
  return { ...build, box, assumed: [...build.assumed, ...NEW_BOX_ASSUMED], practice };
}
