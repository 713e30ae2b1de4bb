import { csvText } from '@hot-spline/model/csv';
import type { PaperInput, PaperTable } from '../shared/paper';
import { readingRows } from './blocks';

type Rows = ReturnType<PaperTable['rows']>;

/** Rows as CSV, the first one the head. */
export function csvOf([head = [], ...rows]: Rows): string {
  return csvText(
    head,
    rows.map((row) => [...row]),
  );
}

const findingRows = ({ derived, systems }: PaperInput): Rows => [
  ['verdict', 'title', 'detail', 'rule', 'rests on'],
  ...derived.findings.map((one) => {
    const { title, detail } = one.say(systems[0] ?? 'metric');
    return [one.verdict, title, detail, one.rule, one.rests];
  }),
];

/** Every table to give away: readings and findings, and between them what capabilities bring. */
export const tablesOf = (lines: PaperInput['lines']): Readonly<Record<string, PaperTable>> => ({
  readings: {
    name: 'Readings',
    rows: (input) => [['what', 'read', 'against', 'with', 'by'], ...readingRows(input)],
  },
  ...Object.assign({}, ...lines.map(({ tables }) => tables ?? {})),
  findings: { name: 'Findings', rows: findingRows },
});
