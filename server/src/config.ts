import path from 'node:path';
import { parseOrRefuse, z } from '@hot-spline/model';

const environment = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(8017),
  HOST: z.string().min(1).default('127.0.0.1'),
  HOT_SPLINE_DATA: z.string().min(1).default('data'),
  HOT_SPLINE_DEMO: z.enum(['0', '1']).default('0'),
  HOT_SPLINE_GAUGE_PACE: z.coerce.number().min(1).max(10).default(1),
  DATABASE_URL: z.string().startsWith('postgres').optional(),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

export interface Config {
  readonly port: number;
  readonly host: string;
  readonly dataFolder: string;
  readonly demo: boolean;
  /** How many times as fast the simulated gauges run: stories in the browser need not wait for needles. */
  readonly gaugePace: number;
  readonly databaseUrl: string | undefined;
  readonly logLevel: string;
  readonly hosts: readonly string[];
}

/**
 * Reads the configuration once and freezes it.
 * @throws InputError naming the variable
 */
export function readConfig(env: NodeJS.ProcessEnv, root: string): Config {
  const known = parseOrRefuse(environment, env, 'environment');
  const local = ['127.0.0.1', 'localhost', '[::1]'];
  return Object.freeze({
    port: known.PORT,
    host: known.HOST,
    dataFolder: path.resolve(root, known.HOT_SPLINE_DATA),
    demo: known.HOT_SPLINE_DEMO === '1',
    gaugePace: known.HOT_SPLINE_GAUGE_PACE,
    databaseUrl: known.DATABASE_URL,
    logLevel: known.LOG_LEVEL,
    // Bound to anything but this machine, the builder has chosen to be called by other names.
    hosts: local.includes(known.HOST) ? local : ['*'],
  });
}
