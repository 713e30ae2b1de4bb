import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { InputError } from '@hot-spline/core';
// Only what calculates: the whole model takes longer to load than a calculation to run.
import { calculations } from '../model/src/assembly/calculations';

const USAGE = `usage: npm run --silent calc -- NAME '{json}'   (or JSON on standard input)
       npm run --silent calc -- NAME '{json}' --working
       npm run --silent calc -- --lines   (each line {"id":…,"name":…,"input":…} is answered by one line, until the input ends)
       npm run --silent calc -- --list
       npm run --silent calc -- --describe NAME
       npm run --silent calc -- --help`;

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

const LINE = 'a line {"name":…,"input":…}, with an "id" where answers are to be told apart';

/** One line, answered by one: with the `id` that it says, so that whoever sends many knows which is which. */
function answerLine(line: string, withWorking: boolean): Record<string, unknown> {
  let id: unknown;
  const said = answer(() => {
    if (line.trim() === '') throw new InputError('line', 'line is empty.', LINE);
    const asked = parse(line);
    if (typeof asked !== 'object' || asked === null || Array.isArray(asked))
      throw new InputError('line', 'line is no object.', LINE);
    const { id: its, name, input, ...more } = asked as Record<string, unknown>;
    id = its;
    const [unknown] = Object.keys(more);
    if (unknown !== undefined) throw new InputError(unknown, `${unknown} is not known here.`, LINE);
    if (typeof name !== 'string') throw new InputError('name', 'name is missing.', LINE);
    return calculations.run(name, input ?? {}, withWorking);
  });
  return id === undefined ? said : { id, ...said };
}

/** Answers each line at once, in order, until the input ends. A refused line is answered and the next one is read. */
async function lines(withWorking: boolean): Promise<void> {
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Number.POSITIVE_INFINITY })) {
    process.stdout.write(`${JSON.stringify(answerLine(line, withWorking))}\n`);
  }
}

const args = process.argv.slice(2);
const withWorking = args.includes('--working');
const [first, second] = args.filter((arg) => arg !== '--working');

if (first === '--help' || first === '-h') process.stdout.write(`${USAGE}\n`);
else if (first === '--lines') await lines(withWorking);
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
