import { appendFileSync } from 'node:fs';
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** Each story's time goes to the file that `npm test` lists the slowest from. */
export default class Times implements Reporter {
  onTestEnd(test: TestCase, { duration }: TestResult): void {
    const times = process.env['SPEC_TIMES'];
    if (times)
      appendFileSync(times, `${JSON.stringify({ ms: duration, name: test.titlePath().slice(2).join(' › ') })}\n`);
  }

  printsToStdio(): boolean {
    return false;
  }
}
