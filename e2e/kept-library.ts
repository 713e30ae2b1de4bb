import { readFileSync } from 'node:fs';
import { request, type FullConfig } from '@playwright/test';
import { emptyShop } from './server';

/**
 * Axles, gearboxes and drawers that stories are told with: kept ones, which don't move when the demo library is changed;
 * under the ids by which the ledgers of the kept builds name them.
 */
export default async function putKeptLibrary({ projects }: FullConfig): Promise<void> {
  const context = await request.newContext({ baseURL: projects[0]?.use.baseURL ?? '' });
  const { specs } = JSON.parse(readFileSync(new URL('kept-library.json', import.meta.url), 'utf8')) as {
    specs: readonly { readonly id: string; readonly spec: object }[];
  };
  for (const { id, spec } of specs) {
    const answer = await context.put(`/api/library/${id}`, {
      data: { writeId: id, baseVersion: 0, who: 'Ines', spec },
    });
    if (!answer.ok()) throw new Error(`${answer.status()}: ${await answer.text()}`);
  }
  await context.dispose();
  await emptyShop();
}
