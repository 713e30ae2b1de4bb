import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  openSync,
  readSync,
  readdirSync,
  rmSync,
  statSync,
  writeSync,
  closeSync,
} from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { seededRandom } from '@hot-spline/core';
import { FORMAT_VERSION, newBuild, type Arrival, type HealthAnswer } from '@hot-spline/model';
import { migrate, readMigrations } from '../db/migrate';
import { openPglite } from '../db/pglite';

/** What is done to a shop, and what came of it. */
export interface Suffered {
  readonly done: number;
  /** Writes that were acknowledged and are not there. */
  lost: number;
  /** Damage that nobody named. */
  unnoticed: number;
  /** Answers that were mistakes of the server: 5xx but 503, 504 of a calculation and 507. */
  mistakes: number;
  /** Requests without an answer within the time, or servers that did not end or start. */
  hangs: number;
  /** What it was, for whoever looks for the cause; the seed brings it again. */
  readonly notes: string[];
}

export interface Torture {
  readonly seed: number;
  readonly times: number;
  /** How a server is started: a command and its arguments. */
  readonly server: readonly string[];
  /** Told now and then how far a long run is, and what it has found by then. */
  readonly far?: (done: number, soFar: Suffered) => void;
}

const ROOT = fileURLToPath(new URL('../../../', import.meta.url));
/** Nothing takes longer. */
const HANGS_MS = 40_000;
/** But to count everything, of a shop that a thousand kills have filled. */
const COUNTS_MS = 900_000;

const suffered = (done: number): Suffered => ({ done, lost: 0, unnoticed: 0, mistakes: 0, hangs: 0, notes: [] });
const within = <T>(work: Promise<T>, ms = HANGS_MS): Promise<T | null> => {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<null>((resolve) => (timer = setTimeout(() => resolve(null), ms)));
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
};
const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

class Shop {
  private constructor(
    readonly process: ChildProcess,
    readonly url: string,
    /** What it said where it did not start. */
    readonly said: string,
    readonly code: number | null,
  ) {}

  /** Starts one and kills it after some time, wherever it is then. */
  static async killed(torture: Torture, folder: string, afterMs: number): Promise<void> {
    const child = Shop.begun(torture, folder, {});
    const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    await Promise.race([sleep(afterMs), gone]);
    child.kill('SIGKILL');
    await gone;
  }

  /** Starts one; without an address where it left before it had one. */
  static async start(torture: Torture, folder: string, env: Record<string, string> = {}): Promise<Shop> {
    const child = Shop.begun(torture, folder, env);
    let said = '';
    child.stderr.on('data', (piece: Buffer) => (said += piece.toString()));
    return new Promise((resolve) => {
      child.stdout.on('data', (piece: Buffer) => {
        said += piece.toString();
        const [, url] = /is at (\S+)/.exec(said) ?? [];
        if (url !== undefined) resolve(new Shop(child, url, said, null));
      });
      child.once('exit', (code) => resolve(new Shop(child, '', said, code)));
      setTimeout(() => resolve(new Shop(child, '', said, null)), HANGS_MS).unref();
    });
  }

  private static begun({ server }: Torture, folder: string, env: Record<string, string>) {
    const [command = '', ...args] = server;
    return spawn(command, args, {
      cwd: ROOT,
      env: {
        ...process.env,
        PORT: '0',
        HOT_SPLINE_DATA: folder,
        LOG_LEVEL: 'silent',
        HOT_SPLINE_BACKUPS: 'none',
        ...env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
  }

  async ask(
    method: string,
    route: string,
    body?: unknown,
    withinMs = HANGS_MS,
  ): Promise<{ status: number; text: string } | null> {
    const text = body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body);
    try {
      const answer = await fetch(new URL(route, this.url), {
        method,
        headers: text === null ? {} : { 'content-type': 'application/json' },
        body: text,
        signal: AbortSignal.timeout(withinMs),
      });
      return { status: answer.status, text: await answer.text() };
    } catch (error) {
      // Killed under it: no answer is no promise. A hang is told apart by its name.
      if (error instanceof Error && error.name === 'TimeoutError') return { status: 0, text: 'hang' };
      return null;
    }
  }

  kill(signal: NodeJS.Signals): Promise<void> {
    if (this.process.exitCode !== null || this.process.signalCode !== null) return Promise.resolve();
    const gone = new Promise<void>((resolve) => this.process.once('exit', () => resolve()));
    this.process.kill(signal);
    return gone;
  }
}

const buildFile = (name: string) => ({
  format: 'hot-spline/build-file',
  formatVersion: FORMAT_VERSION,
  build: newBuild(name),
  ledger: [],
});
const decision = (why: string) => ({
  kind: 'decision',
  id: randomUUID(),
  at: '2026-11-30T08:00:00.000Z',
  who: 'Ines',
  about: 'springs',
  decided: 'softer',
  why,
});
const freshFolder = (): string => mkdtempSync(path.join(tmpdir(), 'hot-spline-torture-'));

/** Everything that was acknowledged: builds by their ids, entries by the build that they are of. */
type Acknowledged = Map<string, Set<string>>;

/** Whether all that was acknowledged is there, and adds up. */
async function look(shop: Shop, known: Acknowledged, result: Suffered, what: string): Promise<void> {
  // It counts every entry of the shop: as long as that is large, and nobody else waits for it.
  const health = await shop.ask('POST', '/api/check', undefined, COUNTS_MS);
  if (health?.status !== 200) {
    result.hangs++;
    result.notes.push(`${what}: the check answers ${health?.status ?? 'nothing'}`);
  }
  const { damage } = (health?.status === 200 ? JSON.parse(health.text) : { damage: [] }) as HealthAnswer;
  if (damage.length > 0) {
    result.lost++;
    result.notes.push(`${what}: ${JSON.stringify(damage)}`);
  }
  for (const [id, entries] of known) {
    const answer = await shop.ask('GET', `/api/builds/${id}/ledger`);
    const there = new Set(
      answer?.status === 200 ? (JSON.parse(answer.text) as { id: string }[]).map((entry) => entry.id) : [],
    );
    const missing = [...entries].filter((entry) => !there.has(entry));
    if (answer?.status !== 200 || missing.length > 0) {
      result.lost += Math.max(1, missing.length);
      result.notes.push(
        `${what}: build ${id} answers ${answer?.status ?? 'nothing'}, ${missing.length} entries missing`,
      );
    }
  }
}

/** Writers write, and the server is killed at some moment; what was acknowledged is there when it has started again. */
export async function killsInWrites(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  const folder = freshFolder();
  const known: Acknowledged = new Map();
  for (let round = 0; round < torture.times; round++) {
    const shop = await Shop.start(torture, folder);
    if (shop.url === '') {
      result.hangs++;
      result.notes.push(`seed ${torture.seed}, kill ${round}: does not start: ${shop.said}`);
      await shop.kill('SIGKILL');
      break;
    }
    let on = true;
    const writer = async (): Promise<void> => {
      const id = randomUUID();
      const made = await shop.ask('POST', '/api/builds', { id, file: buildFile(`Car ${round}`) });
      if (made?.status !== 201) return;
      const entries = new Set<string>();
      known.set(id, entries);
      while (on) {
        const entry = decision(`round ${round}`);
        const answer = await shop.ask('POST', `/api/builds/${id}/ledger`, entry);
        if (answer?.status === 201) entries.add(entry.id);
        else if (answer && answer.status >= 500 && answer.status !== 503 && answer.status !== 507) result.mistakes++;
      }
    };
    const writers = [writer(), writer(), writer()];
    await sleep(40 + random() * 500);
    await shop.kill('SIGKILL');
    on = false;
    await Promise.all(writers);
  }
  const shop = await Shop.start(torture, folder);
  await look(shop, known, result, `seed ${torture.seed}, after ${torture.times} kills`);
  await shop.kill('SIGTERM');
  rmSync(folder, { recursive: true, force: true });
  return result;
}

/** Killed while a new shop begins and its database is made: it is begun anew, or goes on; never half. */
export async function killsInBeginning(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  for (let round = 0; round < torture.times; round++) {
    const folder = freshFolder();
    // It is somewhere between its mark and its last migration.
    await Shop.killed(torture, folder, 200 + random() * 2500);
    const again = await Shop.start(torture, folder);
    const health = again.url === '' ? null : await again.ask('GET', '/api/health');
    if (health?.status !== 200) {
      result.lost++;
      result.notes.push(`seed ${torture.seed}, beginning ${round}: ${again.said}`);
    }
    await again.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  }
  return result;
}

/** A folder as the program kept it before chains, set-ups as rows and arrivals: builds and their ledgers, no mark. */
async function folderOfBefore(builds: number): Promise<{ folder: string; known: Acknowledged }> {
  const folder = freshFolder();
  const known: Acknowledged = new Map();
  const db = await openPglite(path.join(folder, 'pg'));
  await migrate(db, readMigrations().slice(0, 7));
  for (let i = 0; i < builds; i++) {
    const id = randomUUID();
    const entries = Array.from({ length: 40 }, (_, k) => decision(`before ${k}`));
    const document = JSON.stringify(newBuild(`Car ${i}`));
    await db.query(
      "insert into builds (id, name, vehicle, use, version, document, format_version) values ($1, $2, '', 'street', 1, $3, $4)",
      [id, `Car ${i}`, document, FORMAT_VERSION],
    );
    await db.query(
      'insert into build_versions (build_id, version, write_id, document, format_version) values ($1, 1, $1, $2, $3)',
      [id, document, FORMAT_VERSION],
    );
    for (const entry of entries)
      await db.query('insert into ledger (build_id, id, kind, entry, format_version) values ($1, $2, $3, $4, $5)', [
        id,
        entry.id,
        entry.kind,
        JSON.stringify(entry),
        FORMAT_VERSION,
      ]);
    known.set(id, new Set(entries.map((entry) => entry.id)));
  }
  await db.close();
  return { folder, known };
}

/** Killed while a folder of before is brought up to date: what was in it is there after the next start, and adds up. */
export async function killsInUpgrade(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  const old = await folderOfBefore(torture.times < 10 ? 5 : 30);
  for (let round = 0; round < torture.times; round++) {
    const folder = freshFolder();
    cpSync(old.folder, folder, { recursive: true });
    const what = `seed ${torture.seed}, upgrade ${round}`;
    // Twice, for what the second does over the half of the first is another thing.
    for (let kill = 0; kill < 2; kill++) await Shop.killed(torture, folder, 200 + random() * 3000);
    const again = await Shop.start(torture, folder);
    if (again.url === '') {
      result.lost++;
      result.notes.push(`${what}: ${again.said}`);
    } else await look(again, old.known, result, what);
    await again.kill('SIGTERM');
    rmSync(folder, { recursive: true, force: true });
  }
  rmSync(old.folder, { recursive: true, force: true });
  return result;
}

/** Killed while an archive comes in: all of it is there after the next start, or nothing. */
export async function killsInArrivals(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  const [from, to] = [freshFolder(), freshFolder()];
  const source = await Shop.start(torture, from);
  const builds = torture.times < 10 ? 15 : 60;
  for (let i = 0; i < builds; i++)
    await source.ask('POST', '/api/builds', { id: randomUUID(), file: buildFile(`Car ${i}`) });
  const archive = await (await fetch(new URL('/api/archive', source.url))).arrayBuffer();
  await source.kill('SIGTERM');
  for (let round = 0; round < torture.times; round++) {
    const shop = await Shop.start(torture, to);
    const sent = await fetch(new URL('/api/arrivals', shop.url), {
      method: 'POST',
      headers: { 'content-type': 'application/zip' },
      body: archive,
    });
    const { id } = (await sent.json()) as Arrival;
    for (;;) {
      const answer = await shop.ask('GET', `/api/arrivals/${id}`);
      if ((JSON.parse(answer?.text ?? '{}') as Arrival).state !== 'reading') break;
    }
    await shop.ask('POST', `/api/arrivals/${id}`, {});
    await sleep(random() * 900);
    await shop.kill('SIGKILL');
    const again = await Shop.start(torture, to);
    const list = await again.ask('GET', '/api/builds');
    const there = (JSON.parse(list?.text ?? '[]') as unknown[]).length;
    const { damage } = JSON.parse((await again.ask('POST', '/api/check'))?.text ?? '{"damage":[1]}') as HealthAnswer;
    if ((there !== 0 && there !== builds) || damage.length > 0) {
      result.lost++;
      result.notes.push(
        `seed ${torture.seed}, arrival ${round}: ${there} of ${builds} builds, ${JSON.stringify(damage)}`,
      );
    }
    await again.kill('SIGTERM');
    if (there > 0) {
      rmSync(to, { recursive: true, force: true });
    }
  }
  for (const folder of [from, to]) rmSync(folder, { recursive: true, force: true });
  return result;
}

/** Bytes of the folder are changed, cut or taken away while nobody runs: it is refused in a sentence, or what is lost is named. */
export async function damages(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  const whole = freshFolder();
  const first = await Shop.start(torture, whole);
  const known: Acknowledged = new Map();
  // A short run has a small shop.
  const [builds, entriesOf] = torture.times < 10 ? [4, 5] : [12, 10];
  for (let i = 0; i < builds; i++) {
    const id = randomUUID();
    await first.ask('POST', '/api/builds', { id, file: buildFile(`Car ${i}`) });
    const entries = new Set<string>();
    for (let n = 0; n < entriesOf; n++) {
      const entry = decision(`n ${n}`);
      if ((await first.ask('POST', `/api/builds/${id}/ledger`, entry))?.status === 201) entries.add(entry.id);
    }
    known.set(id, entries);
  }
  await first.ask('POST', '/api/check');
  await first.kill('SIGTERM');
  const files = readdirSync(whole, { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile())
    .map((one) => path.relative(whole, path.join(one.parentPath, one.name)))
    .sort();
  for (let round = 0; round < torture.times; round++) {
    const folder = freshFolder();
    cpSync(whole, folder, { recursive: true });
    const file = files[Math.floor(random() * files.length)] ?? '';
    const at = path.join(folder, file);
    const size = statSync(at).size;
    const kind = (['byte', 'cut', 'gone', 'zero'] as const)[Math.floor(random() * 4)] ?? 'byte';
    const what = `seed ${torture.seed}, damage ${round}: ${kind} of ${file}`;
    if (kind === 'gone') rmSync(at);
    else {
      const handle = openSync(at, 'r+');
      const place = Math.floor(random() * Math.max(1, size));
      const one = Buffer.alloc(kind === 'zero' ? Math.min(4096, size) : 1);
      if (kind === 'byte' && size > 0) {
        readSync(handle, one, 0, 1, place);
        one[0] = (one[0] ?? 0) ^ 0x5a;
      }
      if (kind !== 'cut') writeSync(handle, one, 0, one.length, Math.min(place, Math.max(0, size - one.length)));
      closeSync(handle);
      if (kind === 'cut') spawnSync('truncate', ['-s', String(place), at]);
    }
    const shop = await Shop.start(torture, folder);
    if (shop.url === '') {
      if (shop.code === null) {
        result.hangs++;
        result.notes.push(`${what}: neither starts nor ends`);
      } else if (shop.said.trim() === '') {
        result.unnoticed++;
        result.notes.push(`${what}: left without a word`);
      }
      await shop.kill('SIGKILL');
    } else {
      const answer = await shop.ask('POST', '/api/check');
      const named = answer?.status === 200 && (JSON.parse(answer.text) as HealthAnswer).damage.length > 0;
      const seen = suffered(0);
      await look(shop, known, seen, what);
      // Missing, and nobody says so.
      if (seen.lost > 0 && !named) {
        result.unnoticed++;
        result.notes.push(...seen.notes);
      }
      const board = await shop.ask('GET', '/api/board');
      if (board && (board.status === 0 || (board.status >= 500 && board.status !== 503))) {
        if (board.status === 0) result.hangs++;
        else result.mistakes++;
        result.notes.push(`${what}: the board answers ${board.status}`);
      }
      await shop.kill('SIGKILL');
    }
    rmSync(folder, { recursive: true, force: true });
  }
  rmSync(whole, { recursive: true, force: true });
  return result;
}

type Random = () => number;
const pick = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)] as T;
const WORDS = ['', 'x', '0.3 mm', '\u0000', '\ud83d', '🛠', "'; drop table builds; --", 'a'.repeat(5000), '../../etc'];
const NUMBERS = [0, -1, 1, 0.1, 1e300, -1e300, 5e-324, Number.MAX_SAFE_INTEGER, 2 ** 31, 41, 11];

/** Something that may stand anywhere. */
function anything(random: Random, depth = 3): unknown {
  const kind = Math.floor(random() * (depth > 0 ? 7 : 5));
  if (kind < 2) return pick(random, NUMBERS);
  if (kind === 2) return pick(random, WORDS);
  if (kind === 3) return random() < 0.5;
  if (kind === 4) return null;
  if (kind === 5) return Array.from({ length: Math.floor(random() * 4) }, () => anything(random, depth - 1));
  return Object.fromEntries(
    Array.from({ length: Math.floor(random() * 4) }, () => [
      pick(random, ['id', 'name', 'value', 'kind', 'file', '__proto__', 'constructor']),
      anything(random, depth - 1),
    ]),
  );
}

/** An example with one thing in it changed, taken out or put in. */
function bent(random: Random, example: unknown): unknown {
  if (typeof example !== 'object' || example === null) return random() < 0.7 ? anything(random, 2) : example;
  if (Array.isArray(example)) {
    if (example.length === 0 || random() < 0.1) return [...(example as unknown[]), anything(random)];
    const at = Math.floor(random() * example.length);
    return example.map((one: unknown, i) => (i === at ? bent(random, one) : one));
  }
  const keys = Object.keys(example);
  const key = pick(random, keys);
  const { [key]: value, ...rest } = example as Record<string, unknown>;
  const roll = random();
  if (roll < 0.1) return rest;
  if (roll < 0.2) return { ...rest, [key]: value, more: anything(random) };
  return { ...rest, [key]: bent(random, value) };
}

interface Described {
  readonly parameters: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly example?: unknown }>> };
}

/** Every route that the description names, with parameters and bodies that are nearly right or not at all. */
export async function fuzz(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  const folder = freshFolder();
  const shop = await Shop.start(torture, folder, { HOT_SPLINE_DEMO: '1' });
  const { paths } = JSON.parse((await shop.ask('GET', '/api/openapi.json'))?.text ?? '{}') as {
    paths: Record<string, Record<string, Described>>;
  };
  // What ends the shop, or goes on for ever, is tried elsewhere.
  const operations = Object.entries(paths)
    .flatMap(([route, methods]) => Object.entries(methods).map(([method, described]) => ({ route, method, described })))
    .filter(
      ({ route, method }) =>
        !/changes|gauges|restore|backup|arrivals$/.test(route) && !(route === '/api/archive' && method === 'get'),
    );
  const builds = JSON.parse((await shop.ask('GET', '/api/builds'))?.text ?? '[]') as { id: string }[];
  const one = async (): Promise<void> => {
    const { route, method, described } = pick(random, operations);
    let url = route;
    const query = new URLSearchParams();
    for (const { name, in: where } of described.parameters) {
      const value =
        name === 'id' && random() < 0.7
          ? pick(random, builds).id
          : String(pick<unknown>(random, [...WORDS, ...NUMBERS, 'rear']));
      if (where === 'path')
        url = url.replace(`{${name}}`, encodeURIComponent(value.replace(/[\ud800-\udfff]/g, '')) || 'x');
      else if (where === 'query' && random() < 0.5) query.set(name, value);
    }
    const example = described.requestBody?.content['application/json']?.example;
    const body =
      described.requestBody === undefined
        ? undefined
        : example !== undefined && random() < 0.8
          ? bent(random, example)
          : anything(random);
    const answer = await shop.ask(method.toUpperCase(), `${url}?${query.toString()}`, body);
    const passes = answer && (answer.status < 500 || [503, 504, 507].includes(answer.status)) && answer.status !== 0;
    if (passes) return;
    if (answer?.status === 0) result.hangs++;
    else result.mistakes++;
    result.notes.push(
      `seed ${torture.seed}: ${method} ${url} ${JSON.stringify(body)?.slice(0, 300) ?? ''} answers ${answer?.status ?? 'nothing'}`,
    );
  };
  for (let n = 0; n < torture.times; n += 8) {
    await Promise.all(Array.from({ length: Math.min(8, torture.times - n) }, one));
    if (n > 0 && n % 5000 === 0) torture.far?.(n, result);
  }
  const health = await shop.ask('GET', '/api/health');
  if (health?.status !== 200) result.hangs++;
  await shop.kill('SIGTERM');
  rmSync(folder, { recursive: true, force: true });
  return result;
}

/** Clients that send half a request, one letter at a time, or leave before the answer; the others are served meanwhile. */
export async function slowAndLeaving(torture: Torture): Promise<Suffered> {
  const random = seededRandom(torture.seed);
  const result = suffered(torture.times);
  const folder = freshFolder();
  const shop = await Shop.start(torture, folder, { HOT_SPLINE_DEMO: '1' });
  const { port, host } = new URL(shop.url);
  const open: { destroy(): void }[] = [];
  const heads = [
    'GET /api/board HTTP/1.1\r\nHos',
    `POST /api/builds HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/json\r\nContent-Length: 100000\r\n\r\n{"id":`,
    `GET /api/archive HTTP/1.1\r\nHost: ${host}\r\n\r\n`,
    `GET /api/changes HTTP/1.1\r\nHost: ${host}\r\n\r\n`,
    `POST /api/arrivals HTTP/1.1\r\nHost: ${host}\r\nContent-Type: application/zip\r\nContent-Length: 5000000\r\n\r\nPK`,
  ];
  for (let n = 0; n < torture.times; n++) {
    const socket = connect(Number(port), '127.0.0.1', () => socket.write(pick(random, heads)));
    // It reads nothing of what comes.
    socket.pause();
    socket.on('error', () => undefined);
    if (random() < 0.5) setTimeout(() => socket.destroy(), random() * 300);
    else open.push(socket);
    if (n % 10 === 0) {
      const answer = await shop.ask('GET', '/api/builds');
      if (answer?.status !== 200) {
        result.hangs++;
        result.notes.push(
          `seed ${torture.seed}, client ${n}: others are answered ${answer?.status ?? 'nothing'}, and the server has ${shop.process.exitCode === null ? 'not ended' : `ended with ${shop.process.exitCode}`}`,
        );
      }
    }
  }
  const stopped = await within(shop.kill('SIGTERM'), 6000);
  if (stopped === null) {
    result.hangs++;
    result.notes.push(`seed ${torture.seed}: it does not end while clients hang on it`);
    await shop.kill('SIGKILL');
  }
  for (const socket of open) socket.destroy();
  rmSync(folder, { recursive: true, force: true });
  return result;
}

/** A second server on the folder of the first: it leaves with a sentence, the first one goes on and loses nothing. */
export async function twoServers(torture: Torture): Promise<Suffered> {
  const result = suffered(torture.times);
  const folder = freshFolder();
  const first = await Shop.start(torture, folder);
  const known: Acknowledged = new Map();
  for (let n = 0; n < torture.times; n++) {
    const id = randomUUID();
    const second = Shop.start(torture, folder);
    const made = await first.ask('POST', '/api/builds', { id, file: buildFile(`Car ${n}`) });
    if (made?.status === 201) known.set(id, new Set());
    const other = await second;
    if (other.url !== '' || other.code !== 1) {
      result.lost++;
      result.notes.push(`second server ${n}: ${other.url || `left with ${other.code ?? 'nothing'}`}`);
    }
    await other.kill('SIGKILL');
  }
  await look(first, known, result, 'two servers');
  await first.kill('SIGTERM');
  rmSync(folder, { recursive: true, force: true });
  return result;
}

/** A disk that is full: writes are refused with 507, reading goes on, and writing when there is room. Needs the right to mount. */
export async function diskFull(torture: Torture): Promise<Suffered> {
  const result = suffered(torture.times);
  const folder = freshFolder();
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=170m', 'tmpfs', folder]).status !== 0) {
    result.notes.push('not tried: no right to mount a small disk');
    return result;
  }
  try {
    const data = path.join(folder, 'data');
    const shop = await Shop.start(torture, data);
    const known: Acknowledged = new Map();
    for (let n = 0; n < torture.times; n++) {
      const ballast = path.join(folder, 'ballast');
      spawnSync('fallocate', ['-l', '120M', ballast]);
      if (!existsSync(ballast) || statSync(ballast).size === 0)
        spawnSync('dd', ['if=/dev/zero', `of=${ballast}`, 'bs=1M']);
      const id = randomUUID();
      const refused = await shop.ask('POST', '/api/builds', { id, file: buildFile(`Full ${n}`) });
      if (refused?.status !== 507) {
        result.mistakes++;
        result.notes.push(`full disk ${n}: a write is answered ${refused?.status ?? 'nothing'}`);
      }
      if ((await shop.ask('GET', '/api/board'))?.status !== 200) result.mistakes++;
      rmSync(ballast, { force: true });
      const kept = await shop.ask('POST', '/api/builds', { id, file: buildFile(`Room ${n}`) });
      if (kept?.status === 201) known.set(id, new Set());
      else {
        result.lost++;
        result.notes.push(`room again ${n}: ${kept?.status ?? 'nothing'} ${kept?.text.slice(0, 200) ?? ''}`);
      }
    }
    await look(shop, known, result, 'full disk');
    await shop.kill('SIGTERM');
  } finally {
    spawnSync('umount', ['-l', folder]);
    rmSync(folder, { recursive: true, force: true });
  }
  return result;
}

/** All of it, with how many times each is done in a long run of 1 000 kills and 100 000 requests. */
export const TORTURES = {
  'kill -9 in writes': { run: killsInWrites, long: 1000 },
  'kill -9 in the beginning': { run: killsInBeginning, long: 60 },
  'kill -9 in an upgrade': { run: killsInUpgrade, long: 60 },
  'kill -9 while an archive comes': { run: killsInArrivals, long: 60 },
  damage: { run: damages, long: 300 },
  'requests by the description': { run: fuzz, long: 100_000 },
  'slow and leaving clients': { run: slowAndLeaving, long: 2000 },
  'two servers on a folder': { run: twoServers, long: 30 },
  'a full disk': { run: diskFull, long: 30 },
} as const satisfies Readonly<Record<string, { run: (torture: Torture) => Promise<Suffered>; long: number }>>;
