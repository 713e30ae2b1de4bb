/**
 * A number or text from outside that can't be used. Every public calculation throws this and nothing else for
 * bad input, so that each edge (form, HTTP, command line) can name the field and the allowed range.
 */
export class InputError extends Error {
  override readonly name = 'InputError';

  /**
   * @param field path of the field as the caller knows it, e.g. `members[3].thicknessMm`
   * @param message one sentence in shop words
   * @param allowed what would have been accepted
   */
  constructor(
    readonly field: string,
    message: string,
    readonly allowed: string,
  ) {
    super(message);
  }
}

/** Limits of one number; both ends belong to the range unless `above` says that the lower end does not. */
export interface NumberRange {
  readonly min?: number;
  readonly above?: number;
  readonly max: number;
  readonly integer?: boolean;
  readonly unit?: string;
}

/** The range in words: `more than 0 up to 5000 mm`. */
export function describeRange(range: NumberRange): string {
  const unit = range.unit ? ` ${range.unit}` : '';
  const kind = range.integer ? 'a whole number ' : '';
  const short = (bound: number): number => Number(bound.toPrecision(6));
  if (range.above !== undefined) return `${kind}more than ${short(range.above)} up to ${short(range.max)}${unit}`;
  return `${kind}from ${short(range.min ?? -range.max)} to ${short(range.max)}${unit}`;
}

/**
 * Returns `value` if it is a finite number inside `range`.
 * @param field its name, or what makes it: a name put together costs more than the look at the number, and is needed where that fails
 * @throws InputError naming `field` for text, NaN, infinities and numbers outside the range
 */
export function requireNumber(field: string | (() => string), value: unknown, range: NumberRange): number {
  const low = range.above ?? range.min ?? -range.max;
  const finite = typeof value === 'number' && Number.isFinite(value);
  const inside =
    finite &&
    value <= range.max &&
    (range.above === undefined ? value >= low : value > low) &&
    (!range.integer || Number.isInteger(value));
  if (inside) return value;
  const allowed = describeRange(range);
  const name = typeof field === 'string' ? field : field();
  throw new InputError(
    name,
    finite ? `${name} is ${value}; it must be ${allowed}.` : `${name} must be a number, ${allowed}.`,
    allowed,
  );
}
