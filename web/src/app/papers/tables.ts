import { AXLES } from '@hot-spline/model';
import { csvText } from '@hot-spline/model/csv';
import type { PaperInput } from './paper';

type Rows = readonly (readonly string[])[];

/** Rows as CSV, the first one the head. */
export function csvOf([head = [], ...rows]: Rows): string {
  return csvText(
    head,
    rows.map((row) => [...row]),
  );
}

/** The order of work: axle, step, how it ended, by whom, minutes planned and taken. */
export const stepRows = ({ derived, moment }: PaperInput): Rows => [
  ['axle', 'step', 'state', 'why', 'by', 'at', 'planned minutes', 'taken minutes'],
  ...AXLES.flatMap((name) =>
    (derived.work[name]?.steps ?? []).map(({ step, status, why, done, takenMinutes }) => [
      name,
      step.title,
      status,
      why,
      done?.who ?? '',
      done ? moment(done.at) : '',
      String(step.minutes),
      takenMinutes === null ? '' : String(takenMinutes),
    ]),
  ),
];

export const partRows = ({ build }: PaperInput): Rows => [
  ['axle', 'part', 'count', 'state', 'supplier', 'promised', 'price', 'number'],
  ...AXLES.flatMap((name) =>
    (build.axles[name]?.work?.parts ?? []).map((one) => [
      name,
      one.name,
      String(one.count),
      one.state,
      one.supplier,
      one.promised ?? '',
      one.price === null ? '' : String(one.price),
      one.number,
    ]),
  ),
];

export const findingRows = ({ derived, systems }: PaperInput): Rows => [
  ['verdict', 'title', 'detail', 'rule', 'rests on'],
  ...derived.findings.map((one) => {
    const { title, detail } = one.say(systems[0] ?? 'metric');
    return [one.verdict, title, detail, one.rule, one.rests];
  }),
];
