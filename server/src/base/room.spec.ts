import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { randomUUID } from 'node:crypto';
import { FORMAT_VERSION, newBuild } from '@hot-spline/model';
import { StartProblem } from './start-problem';
import { call, startShop } from '../testing/shop';

/** A small disk of its own; null where this user may not mount one. */
function smallDisk(mb: number): { folder: string; remove: () => void } | null {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-small-'));
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${mb}m`, 'tmpfs', folder]).status !== 0) return null;
  return {
    folder,
    remove() {
      spawnSync('umount', ['-l', folder]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

describe('a disk that fills up', () => {
  it('is not filled by an archive that does not say how large it is: it is refused on the way, and nothing of it is left', async () => {
    const disk = smallDisk(200);
    if (!disk) return pending('no right to mount a disk of its own here');
    try {
      const data = path.join(disk.folder, 'data');
      const shop = await startShop(data);
      let sent = 0;
      const body = new ReadableStream<Uint8Array>({
        pull(controller) {
          if ((sent += 1e6) > 400e6) controller.close();
          else controller.enqueue(new Uint8Array(1e6));
        },
      });
      const answer = await fetch(new URL('/api/arrivals', shop.url), {
        method: 'POST',
        headers: { 'content-type': 'application/zip' },
        body,
        duplex: 'half',
      } as RequestInit);
      expect(answer.status).toBe(507);
      expect(sent).toBeLessThan(400e6);
      expect(readdirSync(data).filter((name) => name.startsWith('.arrival'))).toEqual([]);
      const file = {
        format: 'hot-spline/build-file',
        formatVersion: FORMAT_VERSION,
        build: newBuild('Room'),
        ledger: [],
      };
      expect((await call(shop, 'POST', '/api/builds', { id: randomUUID(), file })).status).toBe(201);
      await shop.stop();
    } finally {
      disk.remove();
    }
  });

  it('writes are refused before it is full, with how much is missing; reading goes on, and writing when there is room', async () => {
    const disk = smallDisk(160);
    if (!disk) return pending('no right to mount a disk of its own here');
    try {
      const shop = await startShop(path.join(disk.folder, 'data'));
      const id = randomUUID();
      const file = {
        format: 'hot-spline/build-file',
        formatVersion: FORMAT_VERSION,
        build: newBuild('Full'),
        ledger: [],
      };
      const make = (of: string) => call(shop, 'POST', '/api/builds', { id: of, file });
      expect((await make(id)).status).toBe(201);
      const filler = path.join(disk.folder, 'filler');
      // Room for the database to go on, and not for a write.
      const free = (): number => statfsSync(disk.folder).bavail * statfsSync(disk.folder).bsize;
      writeFileSync(filler, Buffer.alloc(free() - 40e6));
      const refused = await make(randomUUID());
      expect(refused.status).toBe(507);
      expect(refused.body.type).toBe('urn:hot-spline:no-room');
      expect(refused.body.detail).toMatch(/has 4\d MB free.* needs 65 MB\. Make room for 2\d MB more/);
      expect(refused.body.neededBytes).toBeGreaterThan(refused.body.freeBytes);
      expect((await call(shop, 'GET', `/api/builds/${id}`)).body.build.name).toBe('Full');
      // What keeps nothing is worked out all the same.
      const ratio = { input: { toothPairs: [{ ring: 41, pinion: 11 }] } };
      expect((await call(shop, 'POST', '/api/calc/gearing.ratio', ratio)).status).not.toBe(507);
      rmSync(filler);
      expect((await make(randomUUID())).status).toBe(201);
      await shop.stop();

      // A start says so too, and changes nothing.
      writeFileSync(filler, Buffer.alloc(free() - 20e6));
      await expectAsync(startShop(path.join(disk.folder, 'data'))).toBeRejectedWithError(
        StartProblem,
        /MB free, and a start here needs 32 MB/,
      );
      await expectAsync(startShop(path.join(disk.folder, 'new'))).toBeRejectedWithError(
        StartProblem,
        /MB free, and a start here needs 103 MB/,
      );
      rmSync(filler);
      const again = await startShop(path.join(disk.folder, 'data'));
      expect((await call(again, 'GET', `/api/builds/${id}`)).status).toBe(200);
      await again.stop();
    } finally {
      disk.remove();
    }
  });
});
