import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

const ROOT = '/usr/lib/postgresql';
/** Debian's PostgreSQL, whichever version; null where there is none. */
const binaries = (): string | null => {
  if (!existsSync(ROOT)) return null;
  const [newest] = readdirSync(ROOT).sort().reverse();
  return newest === undefined ? null : path.join(ROOT, newest, 'bin');
};

/** A port that is free now. */
export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });

/** A PostgreSQL server of its own in a temporary folder. It refuses to run as root: then it runs as its own user. */
export class Postgres {
  readonly folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-postgres-'));
  private constructor(
    readonly bin: string,
    private readonly port: number,
  ) {
    if (process.getuid?.() === 0) execFileSync('chown', ['postgres', this.folder]);
    this.run('initdb', '-D', `${this.folder}/data`, '-U', 'shop', '-A', 'trust', '--no-sync');
    this.start();
  }

  /** Begins one on a free port. @throws Error where there is none here: ask `mayRunPostgres` first */
  static async begin(): Promise<Postgres> {
    const bin = binaries();
    if (bin === null) throw new Error('no PostgreSQL of Debian here');
    return new Postgres(bin, await freePort());
  }

  get url(): string {
    return this.urlOf('postgres');
  }

  urlOf(database: string): string {
    return `postgres://shop@127.0.0.1:${this.port}/${database}`;
  }

  /** Makes an empty database. @returns its address */
  create(database: string): string {
    this.run('createdb', '-h', '127.0.0.1', '-p', String(this.port), '-U', 'shop', database);
    return this.urlOf(database);
  }

  private run(program: string, ...args: string[]): void {
    const whole = [path.join(this.bin, program), ...args];
    const [first = '', ...rest] = process.getuid?.() === 0 ? ['runuser', '-u', 'postgres', '--', ...whole] : whole;
    execFileSync(first, rest, { stdio: 'ignore', cwd: this.folder });
  }

  start(): void {
    const options = `-p ${this.port} -k ${this.folder} -c listen_addresses=127.0.0.1 -c fsync=off`;
    this.run('pg_ctl', '-D', `${this.folder}/data`, '-w', '-l', `${this.folder}/log`, '-o', options, 'start');
  }

  stop(): void {
    this.run('pg_ctl', '-D', `${this.folder}/data`, '-w', '-m', 'immediate', 'stop');
  }

  end(): void {
    this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Whether there is one here, and a right to run it. */
export const mayRunPostgres = (): boolean =>
  binaries() !== null && (process.getuid?.() !== 0 || spawnSync('id', ['postgres']).status === 0);
