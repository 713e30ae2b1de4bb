import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { InputError } from '@hot-spline/core';
// Only what calculates: the whole model takes longer to load than a calculation to run.
import { calculations } from '../model/src/assembly/calculations';

const USAGE = `usage: npm run --silent calc -- NAME '{json}'   (or JSON on standard input)
       npm run --silent calc -- NAME '{json}' --working
       npm run --silent calc -- --lines   (each line {"name":…,"input":…} is answered by one line, until the input ends)
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

/** What came of it, or which field was refused. */
function answer(run: () => unknown): Record<string, unknown> {
  try {
    return { output: run() };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const { field, message, allowed } = error;
    return { error: { field, message, allowed } };
  }
}

function runLine(line: string, withWorking: boolean): unknown {
  const asked = parse(line);
  if (typeof asked !== 'object' || asked === null || !('name' in asked) || typeof asked.name !== 'string')
    throw new InputError('name', 'name is missing.', 'a line {"name":…,"input":…}');
  return calculations.run(asked.name, 'input' in asked ? asked.input : {}, withWorking);
}

/** Answers each line at once, in order, until the input ends. A refused line is answered and the next one is read. */
async function lines(withWorking: boolean): Promise<void> {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (line.trim() === '') continue;
    process.stdout.write(`${JSON.stringify(answer(() => runLine(line, withWorking)))}\n`);
  }
}

const args = process.argv.slice(2);
const withWorking = args.includes('--working');
const [first, second] = args.filter((arg) => arg !== '--working');

if (first === '--lines') await lines(withWorking);
else if (first === undefined) {
  process.stderr.write(`${USAGE}\n`);
  process.exitCode = 2;
} else {
  const { output, error } = answer(() => {
    if (first === '--list') return calculations.all().map(({ name, summary }) => ({ name, summary }));
    if (first === '--describe') return calculations.describe(second ?? '');
    calculations.get(first);
    return calculations.run(first, parse(second ?? readFileSync(0, 'utf8')), withWorking);
  });
  print(error === undefined ? output : { error });
  if (error !== undefined) process.exitCode = 2;
}
