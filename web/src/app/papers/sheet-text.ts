import { ORIGIN_WORDS, isWeak, originOf, type AxleName, type SheetKey } from '@hot-spline/model';
import type { PaperInput } from '../shared/paper';
import { unitsSaid } from '../shared/units-said';

/** A value of the sheet of an axle as it stands there, marked where it was not read from one; null where nobody has said it. */
export function sheetText({ build }: Pick<PaperInput, 'build'>, axle: AxleName, key: SheetKey): string | null {
  const told = build.axles[axle]?.identity?.sheet[key];
  if (!told) return null;
  const { value } = told;
  const text =
    typeof value !== 'object'
      ? String(value)
      : 'typed' in value
        ? unitsSaid(value)
        : `${unitsSaid(value.low)} to ${unitsSaid(value.high)}`;
  const origin = originOf(told);
  return isWeak(origin) ? `${text} (${ORIGIN_WORDS[origin]})` : text;
}
