import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { freePort } from './server';

const root = fileURLToPath(new URL('..', import.meta.url));

test('stopping npm stops the server', async () => {
  const port = await freePort();
  const env = {
    ...process.env,
    PORT: String(port),
    HOT_SPLINE_DATA: mkdtempSync(path.join(tmpdir(), 'hot-spline-start-')),
  };
  const npm = spawn('npm', ['start', '--silent'], { cwd: root, env, stdio: 'ignore' });
  const answers = async (): Promise<boolean> => {
    try {
      return (await fetch(`http://127.0.0.1:${port}/api/health`)).ok;
    } catch {
      return false;
    }
  };
  try {
    await expect.poll(answers, { timeout: 60_000 }).toBe(true);
  } finally {
    npm.kill('SIGTERM');
  }
  await expect.poll(answers).toBe(false);
});

/** Asks the calc command line by line and reads its answers as they come. */
test('calc answers each line at once, until its input ends', async () => {
  const calc = spawn('npm', ['run', '--silent', 'calc', '--', '--lines'], {
    cwd: root,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  let text = '';
  calc.stdout.on('data', (chunk: Buffer) => (text += chunk.toString()));
  const answered = (): number => text.split('\n').filter((line) => line !== '').length;
  calc.stdin.write('{"name":"gearing.teeth","input":{"ring":41,"pinion":11}}\n');
  await expect.poll(answered, { timeout: 60_000 }).toBe(1);
  calc.stdin.write('{"id":7,"name":"gearing.teeth","input":{"ring":"many"}}\nrubbish\n\n');
  calc.stdin.write('{"id":"a","name":"gearing.teeth","inputs":{}}\n');
  await expect.poll(answered).toBe(5);
  const code = new Promise((resolve) => calc.once('exit', resolve));
  calc.stdin.end();
  expect(await code).toBe(0);
  const [first, second, third, blank, unknown] = text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, never>);
  expect(first).toEqual({ output: { ratio: 41 / 11, hunting: 'hunting', commonDivisor: 1 } }); // [exact]
  expect(second).toEqual({ id: 7, error: expect.objectContaining({ field: 'ring' }) });
  expect(third).toEqual({ error: expect.objectContaining({ field: 'input' }) });
  expect(blank).toEqual({ error: expect.objectContaining({ field: 'line' }) });
  expect(unknown).toEqual({ id: 'a', error: expect.objectContaining({ field: 'inputs' }) });
});
