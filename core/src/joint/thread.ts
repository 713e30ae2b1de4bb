import { InputError } from '../base/errors';

const INCH = 25.4;

/** Pitches of ISO 261 that are met in drivelines, mm by nominal diameter, the coarse one first [from memory]. */
const METRIC: Readonly<Record<string, readonly number[]>> = {
  '5': [0.8, 0.5],
  '6': [1, 0.75],
  '7': [1, 0.75],
  '8': [1.25, 1],
  '9': [1.25, 1],
  '10': [1.5, 1.25, 1],
  '11': [1.5, 1.25, 1],
  '12': [1.75, 1.5, 1.25],
  '14': [2, 1.5],
  '16': [2, 1.5],
  '18': [2.5, 2, 1.5],
  '20': [2.5, 2, 1.5],
  '22': [2.5, 2, 1.5],
  '24': [3, 2],
};

/** Threads an inch of ASME B1.1, coarse and fine, by nominal size [from memory]. */
const UNIFIED: Readonly<Record<string, readonly [coarse: number, fine: number]>> = {
  '1/4': [20, 28],
  '5/16': [18, 24],
  '3/8': [16, 24],
  '7/16': [14, 20],
  '1/2': [13, 20],
  '9/16': [12, 18],
  '5/8': [11, 18],
  '3/4': [10, 16],
};

/** Threads an inch of the Whitworth form, fine series (BSF) and coarse (BSW), where they are none of the unified ones [from memory]. */
const WHITWORTH: Readonly<Record<string, readonly number[]>> = {
  '1/4': [26],
  '5/16': [22],
  '3/8': [20],
  '7/16': [18],
  '1/2': [16, 12],
  '9/16': [16],
  '5/8': [14],
  '3/4': [12],
};

export interface Thread {
  readonly system: 'metric' | 'unified';
  /** As the shop says it: `M10×1.25`, `1/2-20`. */
  readonly name: string;
  /** Nominal diameter, mm. */
  readonly diameterMm: number;
  readonly pitchMm: number;
  /** d₂ = d − 0.6495·p, mm [std: ISO 724, ASME B1.1]. */
  readonly pitchDiameterMm: number;
  /** Tensile stress area, mm². */
  readonly stressAreaMm2: number;
}

const known = Object.entries(UNIFIED)
  .flatMap(([size, pitches]) => pitches.map((tpi) => `${size}-${tpi}`))
  .join(', ');

/**
 * A thread by its name: `M10x1.25` (without a pitch the coarse one), `7/16-20`.
 *
 * Stress area A_t: metric π/4·(d − 0.9382·p)² [std: ISO 898-1]; unified π/4·(d − 0.9743/n)² [std: ASME B1.1].
 * @throws InputError on `thread` for a thread that is none of the known ones: a wrong pitch ruins bolt and hole, so it is never
 *   guessed. A Whitworth form is named as such: next to a unified one both are ruined when they are mixed.
 */
export function threadOf(text: string): Thread {
  const said = text.trim().replace(/[×*]/g, 'x').replace(/,/g, '.').replace(/\s+/g, '');
  const metric = /^M(\d{1,2})(?:x(\d(?:\.\d{1,3})?))?$/i.exec(said);
  if (metric) return metricThread(text, metric[1] ?? '', metric[2]);
  const inch = /^(\d{1,2}\/\d{1,2})(?:in|")?[-x](\d{1,2})(?:unf|unc|unj?[cf])?$/i.exec(said);
  if (inch) return unifiedThread(text, inch[1] ?? '', Number(inch[2]));
  throw new InputError('thread', `“${text}” is no thread that is known here.`, `M10x1.25, or one of ${known}`);
}

function metricThread(text: string, size: string, pitchText: string | undefined): Thread {
  const pitches = METRIC[size];
  const pitch = pitchText === undefined ? pitches?.[0] : Number(pitchText);
  if (!pitches || pitch === undefined || !pitches.includes(pitch))
    throw new InputError(
      'thread',
      `“${text}” is no metric thread of the usual series.`,
      pitches
        ? `M${size} has ${pitches.join(', ')} mm`
        : `M${Object.keys(METRIC).join(', M')} with one of their pitches`,
    );
  const diameterMm = Number(size);
  return {
    system: 'metric',
    name: `M${size}×${pitch}`,
    diameterMm,
    pitchMm: pitch,
    pitchDiameterMm: diameterMm - 0.6495 * pitch,
    stressAreaMm2: (Math.PI / 4) * (diameterMm - 0.9382 * pitch) ** 2,
  };
}

function unifiedThread(text: string, size: string, perInch: number): Thread {
  const pitches = UNIFIED[size];
  if (!pitches?.includes(perInch)) {
    const form = WHITWORTH[size]?.includes(perInch)
      ? `“${text}” is a thread of the Whitworth form: another angle and pitch than a unified one, and no bolt for this hole.`
      : `“${text}” is no unified thread.`;
    throw new InputError('thread', form, pitches ? `${size}-${pitches.join(` or ${size}-`)}` : known);
  }
  const [over, under] = size.split('/').map(Number);
  const inches = (over ?? 0) / (under ?? 1);
  const pitchMm = INCH / perInch;
  return {
    system: 'unified',
    name: `${size}-${perInch}`,
    diameterMm: inches * INCH,
    pitchMm,
    pitchDiameterMm: inches * INCH - 0.6495 * pitchMm,
    stressAreaMm2: (Math.PI / 4) * ((inches - 0.9743 / perInch) * INCH) ** 2,
  };
}
