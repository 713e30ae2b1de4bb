import path from 'node:path';
import { InputError } from '@hot-spline/core';
import { parseOrRefuse, z, type Me } from '@hot-spline/model';
import { StartProblem } from './base/start-problem';
import { tlsFiles } from './tls/files';

/** Digits alone: `0x50` and `1e3` are numbers to a computer and typing errors to us. */
const count = (min: number, max: number, usual: number) =>
  z
    .string()
    .regex(/^\d{1,9}$/, 'must be a whole number in digits')
    .transform(Number)
    .pipe(z.number().int().min(min).max(max))
    .default(usual);

const environment = z.object({
  PORT: count(0, 65535, 8017),
  HOST: z.string().min(1).default('127.0.0.1'),
  /** Says that every device of the network may read and write everything, and nobody signs in. */
  HOT_SPLINE_OPEN: z.enum(['0', '1']).default('0'),
  /** Where others reach it, through whatever stands before it: `https://shop.example/spline/`. */
  HOT_SPLINE_ADDRESS: z
    .url({ protocol: /^https?$/ })
    .refine(
      (text) => !/[?#]/.test(text) && URL.canParse(text) && !/[^\w/.-]/.test(new URL(text).pathname),
      'must be an address with a plain path',
    )
    .optional(),
  /** The proxy that is believed about where somebody comes from, where it is not on this machine: its address. */
  HOT_SPLINE_PROXY: z.union([z.ipv4(), z.ipv6()]).optional(),
  /** `1`: https by the certificate that `npm run certificate` made. */
  HOT_SPLINE_TLS: z.enum(['0', '1']).default('0'),
  /** https by files of one’s own, in place of that. */
  HOT_SPLINE_CERT: z.string().min(1).optional(),
  HOT_SPLINE_KEY: z.string().min(1).optional(),
  /** Where a device learns in the clear how to trust the shop’s own authority; 0: a free one. Not said: the port after the other. */
  HOT_SPLINE_TRUST_PORT: z
    .string()
    .regex(/^\d{1,5}$/, 'must be a whole number in digits')
    .transform(Number)
    .pipe(z.number().int().min(0).max(65535))
    .optional(),
  HOT_SPLINE_DATA: z.string().min(1).default('data'),
  /** Another place that backups are copied to; `none`: no backups of ours at all. */
  HOT_SPLINE_BACKUPS: z.string().min(1).optional(),
  HOT_SPLINE_DEMO: z.enum(['0', '1']).default('0'),
  HOT_SPLINE_GAUGE_PACE: count(1, 10, 1),
  DATABASE_URL: z
    .string()
    .regex(/^postgres(ql)?:\/\//, 'must be the address of a PostgreSQL server')
    .optional(),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

export interface Config {
  readonly port: number;
  readonly host: string;
  /** Who is let in: this machine alone, whoever reaches it (every page says so), or who signs in. */
  readonly door: Me['door'];
  /** Where others reach it: the one name beside this machine's own, the path that it stands under, what labels lead to; null: not said. */
  readonly address: { readonly url: string; readonly host: string; readonly prefix: string } | null;
  /** Who is believed about where somebody comes from, beside what stands before it on this machine; null: nobody else. */
  readonly proxy: string | null;
  /** https: where certificate and key lie, and where others learn to trust the authority that made them; null: http. */
  readonly tls: {
    readonly certificate: string;
    readonly key: string;
    readonly trust: { readonly authority: string; readonly port: number } | null;
  } | null;
  readonly dataFolder: string;
  /** Whether backups are made by themselves, and another place that each is copied to. */
  readonly backups: { readonly second: string | null } | null;
  readonly demo: boolean;
  /** How many times as fast the simulated gauges run: stories in the browser need not wait for needles. */
  readonly gaugePace: number;
  readonly databaseUrl: string | undefined;
  readonly logLevel: string;
  readonly hosts: readonly string[];
}

const isHere = (host: string): boolean =>
  host === 'localhost' || host === '::1' || host === '[::1]' || /^127(\.\d{1,3}){3}$/.test(host);

function addressOf(text: string): { readonly url: string; readonly host: string; readonly prefix: string } {
  const { origin, hostname, pathname } = new URL(text);
  const prefix = pathname.endsWith('/') ? pathname : `${pathname}/`;
  return { url: `${origin}${prefix}`.replace(/\/$/, ''), host: hostname.toLowerCase(), prefix };
}

function tlsOf(known: z.infer<typeof environment>, dataFolder: string, root: string): Config['tls'] {
  const { HOT_SPLINE_CERT: certificate, HOT_SPLINE_KEY: key, HOT_SPLINE_TLS: own, PORT: port } = known;
  if ((certificate === undefined) !== (key === undefined))
    throw new StartProblem(
      `${certificate === undefined ? 'HOT_SPLINE_KEY' : 'HOT_SPLINE_CERT'} is set alone.`,
      'https wants both: the certificate and its key.',
    );
  if (certificate !== undefined && key !== undefined)
    return { certificate: path.resolve(root, certificate), key: path.resolve(root, key), trust: null };
  if (own === '0') return null;
  const files = tlsFiles(dataFolder);
  const trust = known.HOT_SPLINE_TRUST_PORT ?? (port === 0 ? 0 : port + 1);
  return { certificate: files.certificate, key: files.key, trust: { authority: files.authority, port: trust } };
}

/**
 * Reads the configuration once and freezes it.
 * @throws StartProblem naming the variable
 */
export function readConfig(env: NodeJS.ProcessEnv, root: string): Config {
  for (const name of Object.keys(environment.shape))
    if (env[name] === '')
      throw new StartProblem(`${name} is set and says nothing.`, 'Give it a value, or leave it out (unset it).');
  let known: z.infer<typeof environment>;
  try {
    known = parseOrRefuse(environment, env, 'environment');
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    throw new StartProblem(error.message, `Allowed: ${error.allowed}`);
  }
  const host = known.HOST.replace(/^\[(.*)\]$/, '$1');
  const bound = host.toLowerCase();
  const here = isHere(bound);
  const address = known.HOT_SPLINE_ADDRESS === undefined ? null : addressOf(known.HOT_SPLINE_ADDRESS);
  if (known.HOT_SPLINE_PROXY !== undefined && address === null)
    throw new StartProblem(
      'HOT_SPLINE_PROXY is set alone.',
      'It is believed where HOT_SPLINE_ADDRESS says what it is reached by through the proxy: set both, or neither.',
    );
  // Behind a proxy every device arrives from this machine: who has an address of its own is no one's alone.
  const alone = here && address === null;
  return Object.freeze({
    port: known.PORT,
    host,
    door: alone ? 'alone' : known.HOT_SPLINE_OPEN === '1' ? 'open' : 'people',
    address,
    proxy: known.HOT_SPLINE_PROXY ?? null,
    tls: tlsOf(known, path.resolve(root, known.HOT_SPLINE_DATA), root),
    dataFolder: path.resolve(root, known.HOT_SPLINE_DATA),
    backups:
      known.HOT_SPLINE_BACKUPS === 'none'
        ? null
        : {
            second: known.HOT_SPLINE_BACKUPS === undefined ? null : path.resolve(root, known.HOT_SPLINE_BACKUPS),
          },
    demo: known.HOT_SPLINE_DEMO === '1',
    gaugePace: known.HOT_SPLINE_GAUGE_PACE,
    databaseUrl: known.DATABASE_URL,
    logLevel: known.LOG_LEVEL,
    // Bound to anything but this machine, the builder has chosen to be called by other names; whoever says which, by those alone.
    hosts: here || address ? ['127.0.0.1', 'localhost', '[::1]', bound, ...(address ? [address.host] : [])] : ['*'],
  });
}
