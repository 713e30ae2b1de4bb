// @ts-expect-error -- plain JavaScript, shared with the tools
import { ensureBundle } from '../../tools/bundle.mjs';
import { TORTURES, type Suffered } from './testing/torture';

/** As often as a run of all tests bears; the long one is by hand: npm run torture -- keep. */
const SHORT: Readonly<Record<keyof typeof TORTURES, number>> = {
  'kill -9 in writes': 2,
  'kill -9 in the beginning': 1,
  'kill -9 in an upgrade': 1,
  'kill -9 while an archive comes': 1,
  damage: 2,
  'requests by the description': 160,
  'slow and leaving clients': 30,
  'two servers on a folder': 1,
  'a full disk': 1,
};

describe('torture, the short way', () => {
  let server: readonly string[] = [];

  beforeAll(async () => {
    // As it is built: from its sources each of its starts takes seconds.
    server = [process.execPath, (await ensureBundle('server')) as string];
  });

  for (const [name, { run }] of Object.entries(TORTURES))
    it(`${name}: nothing is lost, unnoticed, a mistake or a hang`, async () => {
      const result: Suffered = await run({ seed: 7, times: SHORT[name as keyof typeof TORTURES], server });
      const { lost, unnoticed, mistakes, hangs, notes } = result;
      expect({ lost, unnoticed, mistakes, hangs }).withContext(notes.join('\n')).toEqual({
        lost: 0,
        unnoticed: 0,
        mistakes: 0,
        hangs: 0,
      });
    }, 180_000);
});
