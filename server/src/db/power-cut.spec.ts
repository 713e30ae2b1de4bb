import fs from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openPglite } from './pglite';
import { freshFolder } from '../testing/shop';

/** What was done to the files under a folder, in order, and when a write was acknowledged. */
type Step =
  | { readonly kind: 'made' | 'gone' | 'folder' | 'folder gone' | 'synced'; readonly file: string }
  | { readonly kind: 'cut'; readonly file: string; readonly length: number }
  | { readonly kind: 'renamed'; readonly file: string; readonly to: string }
  | { readonly kind: 'written'; readonly file: string; readonly at: number; readonly bytes: Buffer }
  | { readonly kind: 'acknowledged'; readonly key: string };

type Fs = Record<string, (...args: unknown[]) => unknown>;

/** Writes down every change of a file under a folder, by whoever calls Node for it. @returns what ends it */
function record(folder: string, steps: Step[]): () => void {
  const real: Fs = {};
  const node = fs as unknown as Fs;
  const open = new Map<number, string>();
  const within = (file: unknown): string | null => {
    const at = path.relative(folder, String(file));
    return at.startsWith('..') ? null : at;
  };
  const watch = (name: string, note: (result: unknown, args: readonly unknown[]) => void): void => {
    const own = node[name];
    if (!own) throw new Error(`Node has no ${name}`);
    real[name] = own;
    node[name] = (...args) => {
      const result = own(...args);
      note(result, args);
      return result;
    };
  };
  const onFile = (name: string, kind: 'gone' | 'folder' | 'folder gone'): void =>
    watch(name, (_, [file]) => {
      const at = within(file);
      if (at !== null) steps.push({ kind, file: at });
    });
  watch('openSync', (fd, [file, flags]) => {
    const at = within(file);
    if (at === null) return;
    open.set(Number(fd), at);
    const bits = Number(flags);
    if (bits & fs.constants.O_CREAT) steps.push({ kind: 'made', file: at });
    if (bits & fs.constants.O_TRUNC) steps.push({ kind: 'cut', file: at, length: 0 });
  });
  watch('closeSync', (_, [fd]) => void open.delete(Number(fd)));
  watch('writeSync', (count, [fd, buffer, offset, , position]) => {
    const file = open.get(Number(fd));
    if (file === undefined) return;
    const { buffer: memory, byteOffset } = buffer as Uint8Array;
    const bytes = Buffer.from(Buffer.from(memory, byteOffset + Number(offset), Number(count)));
    steps.push({ kind: 'written', file, at: Number(position), bytes });
  });
  watch('fsyncSync', (_, [fd]) => {
    const file = open.get(Number(fd));
    if (file !== undefined) steps.push({ kind: 'synced', file });
  });
  watch('ftruncateSync', (_, [fd, length]) => {
    const file = open.get(Number(fd));
    if (file !== undefined) steps.push({ kind: 'cut', file, length: Number(length ?? 0) });
  });
  watch('truncateSync', (_, [file, length]) => {
    const at = within(file);
    if (at !== null) steps.push({ kind: 'cut', file: at, length: Number(length ?? 0) });
  });
  watch('renameSync', (_, [from, to]) => {
    const at = within(from);
    if (at !== null) steps.push({ kind: 'renamed', file: at, to: within(to) ?? '' });
  });
  onFile('unlinkSync', 'gone');
  onFile('mkdirSync', 'folder');
  onFile('rmdirSync', 'folder gone');
  return () => void Object.assign(node, real);
}

/**
 * The disk after a power cut behind a step, at its worst: of each file only what was synced is there; names, lengths and folders are as a
 * journalling file system keeps them, in order.
 */
function afterCut(folder: string, before: string, steps: readonly Step[]): void {
  fs.cpSync(before, folder, { recursive: true });
  const lastSync = new Map<string, number>();
  // A file is followed under whichever name it has at the end.
  steps.forEach((step, i) => {
    if (step.kind === 'synced') lastSync.set(step.file, i);
    if (step.kind === 'renamed' && lastSync.has(step.file)) lastSync.set(step.to, lastSync.get(step.file) ?? 0);
  });
  steps.forEach((step, i) => {
    if (step.kind === 'acknowledged' || step.kind === 'synced') return;
    const file = path.join(folder, step.file);
    switch (step.kind) {
      case 'made':
        if (!fs.existsSync(file)) fs.writeFileSync(file, '');
        break;
      case 'gone':
        fs.rmSync(file, { force: true });
        break;
      case 'folder':
        fs.mkdirSync(file, { recursive: true });
        break;
      case 'folder gone':
        fs.rmSync(file, { recursive: true, force: true });
        break;
      case 'renamed':
        fs.renameSync(file, path.join(folder, step.to));
        break;
      case 'cut':
        if (fs.existsSync(file)) fs.truncateSync(file, step.length);
        break;
      case 'written': {
        if (!fs.existsSync(file)) break;
        const fd = fs.openSync(file, 'r+');
        // What was not synced is there as nothing: the file has grown, and holds zeros.
        const synced = i < (lastSync.get(step.file) ?? -1);
        const size = fs.fstatSync(fd).size;
        if (synced) fs.writeSync(fd, step.bytes, 0, step.bytes.length, step.at);
        else if (step.at + step.bytes.length > size) fs.ftruncateSync(fd, step.at + step.bytes.length);
        fs.closeSync(fd);
      }
    }
  });
}

/** How many cuts are looked at; HOT_SPLINE_CUTS=all looks at every one (npm run torture). */
const CUTS = process.env['HOT_SPLINE_CUTS'] === 'all' ? Number.POSITIVE_INFINITY : 6;

describe('a power cut', () => {
  it('takes nothing that was acknowledged, wherever it comes', async () => {
    const folder = path.join(await freshFolder(), 'pg');
    const before = path.join(fs.mkdtempSync(path.join(tmpdir(), 'hot-spline-before-')), 'pg');
    fs.cpSync(folder, before, { recursive: true });
    const steps: Step[] = [];
    const end = record(folder, steps);
    try {
      const db = await openPglite(folder);
      for (let i = 0; i < 12; i++) {
        const key = `k${i}`;
        await db.transaction(async (tx) => {
          await tx.query('insert into settings (key, value) values ($1, $2)', [key, 'x'.repeat(i * 900)]);
          await tx.query('update settings set value = value || $1 where key = $2', ['!', 'k0']);
        });
        steps.push({ kind: 'acknowledged', key });
        if (i === 7) await db.query('checkpoint');
      }
      // No close: the power is gone.
    } finally {
      end();
    }
    const acknowledged = steps.filter(({ kind }) => kind === 'acknowledged').length;
    expect(acknowledged).toBe(12);
    expect(steps.filter(({ kind }) => kind === 'synced').length).toBeGreaterThanOrEqual(acknowledged);
    // The worst moments: just behind what was acknowledged, just before and behind what was synced, and those in between.
    const moments = steps.flatMap(({ kind }, i) =>
      kind === 'acknowledged' ? [i + 1] : kind === 'synced' ? [i, i + 1] : [],
    );
    const every = Math.max(1, Math.ceil(moments.length / CUTS));
    const cuts = [...new Set([...moments.filter((_, i) => i % every === 0), steps.length])];
    for (const cut of cuts) {
      const at = path.join(fs.mkdtempSync(path.join(tmpdir(), 'hot-spline-cut-')), 'pg');
      afterCut(at, before, steps.slice(0, cut));
      const db = await openPglite(at);
      const keys = (await db.query<{ key: string }>("select key from settings where key like 'k%'")).map(
        ({ key }) => key,
      );
      const owed = steps.slice(0, cut).flatMap((step) => (step.kind === 'acknowledged' ? [step.key] : []));
      expect(owed.filter((key) => !keys.includes(key)))
        .withContext(`cut behind step ${cut}`)
        .toEqual([]);
      const [sum] = await db.query<{ n: number }>('select count(*)::int as n from settings');
      expect(sum?.n).withContext(`cut behind step ${cut}`).toBeGreaterThanOrEqual(owed.length);
      await db.close();
      fs.rmSync(path.dirname(at), { recursive: true });
    }
    fs.rmSync(path.dirname(before), { recursive: true });
  }, 240_000);

  it('would be noticed: without its syncs something acknowledged is gone', async () => {
    const folder = path.join(await freshFolder(), 'pg');
    const before = path.join(fs.mkdtempSync(path.join(tmpdir(), 'hot-spline-before-')), 'pg');
    fs.cpSync(folder, before, { recursive: true });
    const steps: Step[] = [];
    const end = record(folder, steps);
    try {
      const db = await openPglite(folder);
      await db.query("insert into settings (key, value) values ('lost', 'x')");
    } finally {
      end();
    }
    const at = path.join(fs.mkdtempSync(path.join(tmpdir(), 'hot-spline-cut-')), 'pg');
    afterCut(
      at,
      before,
      steps.filter(({ kind }) => kind !== 'synced'),
    );
    // It may not even open: either way, nobody could say that it was kept.
    const kept = await openPglite(at).then(
      async (db) => {
        const rows = await db.query("select key from settings where key = 'lost'");
        await db.close();
        return rows.length;
      },
      () => 0,
    );
    expect(kept).toBe(0);
    for (const one of [at, before]) fs.rmSync(path.dirname(one), { recursive: true });
  }, 120_000);
});
