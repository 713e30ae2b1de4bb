import { AXLES, ORIGIN_WORDS, isWeak, originOf, type AxleName, type InForce, type SheetKey } from '@hot-spline/model';
import { unitsSaid } from '../shared/units-said';
import type { PaperInput } from './paper';

/** Which value of the spec sheet a reading is held against. */
const SHEET_OF: Readonly<Record<string, (reading: InForce) => SheetKey>> = {
  backlash: () => 'backlash',
  'end-float': () => 'endFloat',
  'ring-runout': () => 'runout',
  'case-spread': () => 'spreadLimit',
  'total-torque': () => 'totalTorque',
  'pinion-torque': ({ state }) => (state['pinionBearings'] === 'new' ? 'pinionTorqueNew' : 'pinionTorqueUsed'),
};

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

/** What a reading is judged by: the band or limit of the sheet, or what its step asks for; empty where it is judged by nothing. */
export function against(input: Omit<PaperInput, 'qr' | 'photos'>, reading: InForce): string {
  const { what, axle: on, step, record } = reading.subject as InForce['subject'] & Readonly<Record<string, string>>;
  const axle = AXLES.find((name) => name === on);
  if (!axle) return '';
  const key = SHEET_OF[what]?.(reading);
  if (key) return sheetText(input, axle, key) ?? 'not said';
  const of = input.derived.work[axle]?.steps.find((one) => one.step.id === step);
  return of?.records.find((one) => one.record.id === record)?.against ?? '';
}
