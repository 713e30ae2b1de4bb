import { cutText } from '../base/text';
import { InputError } from '../base/errors';
import { MM_PER_INCH } from '../units/quantities';

export type TyreForm = 'metric' | 'inch' | 'inch-slick' | 'metric-slick' | 'diameter';

export interface TyreSize {
  readonly form: TyreForm;
  /** Unloaded, from the designation. */
  readonly overallDiameterMm: number;
  /** null where only the diameter is told. */
  readonly sectionWidthMm: number | null;
  readonly rimDiameterIn: number | null;
  /** Section height / width in percent; only where the designation gives it. */
  readonly aspectPercent: number | null;
  readonly construction: 'radial' | 'bias' | null;
  /** Which reading of the text was taken, in words. */
  readonly reading: string;
}

const FIELD = 'designation';
const ALLOWED = 'e.g. 245/40R18, 37x12.50R17, 28.0/10.5-15, 300/680-18, or a diameter: 35, 890 mm';
const PREFIX = String.raw`(?:P|LT|ST|T)?`;
const NUM = String.raw`(\d{1,4}(?:[.,]\d{1,2})?)`;
/** Load range, load index, ply, speed and construction letters say nothing about size. */
const SUFFIX = String.raw`(?:[\s/]*(?:LT|ST|XL|RF|TL|M\+S|\d{1,2}\s?PR|\(?\d{2,3}(?:/\d{2,3})?\s?[A-Z]\d?\)?|[A-Z]))*`;
const BUILT = String.raw`([A-Z]?R|B|D|-)`;
const SHAPE = new RegExp(String.raw`^${PREFIX}\s*${NUM}\s*([/X×])\s*${NUM}\s*${BUILT}\s*${NUM}${SUFFIX}$`);

/** A diameter alone: inches unless it says otherwise. */
const DIAMETER = /^(\d{1,4}(?:[.,]\d{1,2})?)\s*("|″|”|IN(?:CH(?:ES)?)?|MM)?$/;
/** Tyres of cars and trucks. */
const DIAMETER_MM = { min: 350, max: 1500 } as const;

/** The largest second number that can be an aspect ratio; anything above is a diameter [docs/gearing.md]. */
const LARGEST_ASPECT = 110;
/** Two numbers below this are inches, the larger of them the diameter; above it millimetres of section. */
const LARGEST_INCHES = 60;

const toNumber = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));

function refuse(message: string): InputError {
  return new InputError(FIELD, message, ALLOWED);
}

/**
 * Reads a tyre designation in any of the four usual forms and gives the unloaded overall diameter.
 *
 * - `245/40R18`, `P275/60R15`, `LT315/70R17`: 25.4·rim + 2·section·aspect/100 mm [standard: ISO 4000-1 / ETRTO
 *   designation].
 * - `37x12.50R17`: the first number, in. `28.0/10.5-15`, `16/35-15LT`: the larger of the two, in. `300/680-18`: the
 *   second, mm.
 * - `35`, `35 in`, `890 mm`: a diameter alone; width and rim are not known.
 *
 * Aspect ratios end at about 100, so the second number is decided by magnitude; `reading` says which was taken.
 * Not counted: the rim width that it is measured on, load and pressure; makes differ by some per cent.
 * @param designation text; blanks and case don't matter; letters and numbers of speed, load and construction are read
 *   over, before the rim (`195/50VR15`) and behind it (`LT285/75R16E`, `305/35ZR20 (107Y) XL`)
 * @throws InputError on `designation` for text that is none of these, and for sizes that no wheel has
 */
export function tyreSize(designation: string): TyreSize {
  if (typeof designation !== 'string' || designation.trim() === '')
    throw refuse('designation: the tyre size is empty.');
  const text = designation.trim().toUpperCase();
  const alone = DIAMETER.exec(text);
  if (alone) return byDiameter(alone);
  const match = text.length <= 40 ? SHAPE.exec(text) : null;
  if (!match) throw refuse(`designation: “${cutText(designation.trim(), 40)}” is not a tyre size.`);
  const first = toNumber(match[1]);
  const second = toNumber(match[3]);
  const rimDiameterIn = toNumber(match[5]);
  const built = match[4] ?? '';
  const construction = built.endsWith('R') ? 'radial' : built === '-' ? null : 'bias';
  const rimMm = rimDiameterIn * MM_PER_INCH;

  const size = ((): Omit<TyreSize, 'rimDiameterIn' | 'construction' | 'sectionWidthMm'> & {
    sectionWidthMm: number;
  } => {
    if (match[2] !== '/') {
      return {
        form: 'inch',
        overallDiameterMm: first * MM_PER_INCH,
        sectionWidthMm: second * MM_PER_INCH,
        aspectPercent: null,
        reading: `${first} in diameter, ${second} in wide, ${rimDiameterIn} in rim`,
      };
    }
    if (first < LARGEST_INCHES && second < LARGEST_INCHES) {
      const [across, wide] = [Math.max(first, second), Math.min(first, second)];
      return {
        form: 'inch-slick',
        overallDiameterMm: across * MM_PER_INCH,
        sectionWidthMm: wide * MM_PER_INCH,
        aspectPercent: null,
        reading: `two inch sizes, the larger is across: ${across} in diameter, ${wide} in wide, ${rimDiameterIn} in rim`,
      };
    }
    if (second <= LARGEST_ASPECT) {
      return {
        form: 'metric',
        overallDiameterMm: rimMm + (2 * first * second) / 100,
        sectionWidthMm: first,
        aspectPercent: second,
        reading: `${first} mm section, ${second} % aspect, ${rimDiameterIn} in rim`,
      };
    }
    return {
      form: 'metric-slick',
      overallDiameterMm: second,
      sectionWidthMm: first,
      aspectPercent: null,
      reading: `${second} is too much for an aspect ratio, so it is the diameter: ${second} mm, ${first} mm wide, ${rimDiameterIn} in rim`,
    };
  })();

  if (rimDiameterIn < 4 || rimDiameterIn > 60)
    throw refuse(`designation: a rim of ${rimDiameterIn} in is out of range (4 to 60 in).`);
  if (size.overallDiameterMm <= rimMm) {
    throw refuse(
      `designation: the overall diameter ${Math.round(size.overallDiameterMm)} mm is not larger than the ${rimDiameterIn} in rim.`,
    );
  }
  if (size.overallDiameterMm > 2500) throw refuse('designation: the overall diameter is above 2500 mm.');
  if (size.sectionWidthMm < 20 || size.sectionWidthMm > 1000) {
    throw refuse(`designation: a width of ${Math.round(size.sectionWidthMm)} mm is out of range (20 to 1000 mm).`);
  }
  return { ...size, rimDiameterIn, construction };
}

function byDiameter([, number, unit = '']: RegExpExecArray): TyreSize {
  const value = toNumber(number);
  const mm = unit === 'MM';
  const overallDiameterMm = mm ? value : value * MM_PER_INCH;
  if (overallDiameterMm < DIAMETER_MM.min || overallDiameterMm > DIAMETER_MM.max)
    throw refuse(`designation: a diameter of ${value} ${mm ? 'mm' : 'in'} is no tyre’s.`);
  return {
    form: 'diameter',
    overallDiameterMm,
    sectionWidthMm: null,
    rimDiameterIn: null,
    aspectPercent: null,
    construction: null,
    reading: `${value} ${mm ? 'mm' : 'in'} in diameter; width and rim not said`,
  };
}
