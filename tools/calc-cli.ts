import { readFileSync } from 'node:fs';
import { InputError } from '@hot-spline/core';
import { calculations } from '@hot-spline/model';

const USAGE = `usage: npm run --silent calc -- NAME '{json}'   (or JSON on standard input)
       npm run --silent calc -- NAME '{json}' --working
       npm run --silent calc -- --list
       npm run --silent calc -- --describe NAME`;

const print = (value: unknown): void => void process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new InputError('input', 'input is not JSON.', 'one JSON object');
  }
}

try {
  const args = process.argv.slice(2);
  const withWorking = args.includes('--working');
  const [first, second] = args.filter((arg) => arg !== '--working');
  if (first === '--list') print(calculations.all().map(({ name, summary }) => ({ name, summary })));
  else if (first === '--describe') print(calculations.describe(second ?? ''));
  else if (first === undefined) {
    process.stderr.write(`${USAGE}\n`);
    process.exitCode = 2;
  } else {
    calculations.get(first);
    print(calculations.run(first, parse(second ?? readFileSync(0, 'utf8')), withWorking));
  }
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  const { field, message, allowed } = error;
  print({ error: { field, message, allowed } });
  process.exitCode = 2;
}
