import { InputError } from '@hot-spline/core';
import { HEAVY, defineHeavy } from '@hot-spline/model';
import { TraceReader, encodingOf, type TraceChosen, type TraceImport } from '@hot-spline/model/csv';
import Papa from 'papaparse';

export type TraceChoice = TraceChosen;
/** So many bytes say what a file is written in. */
const HEAD_BYTES = 1 << 16;
export type ReadTrace = Omit<TraceImport, 'samples'>;

/** Reads a speed trace out of a file, piece by piece. */
const trace = defineHeavy<'road.trace', { readonly file: Blob; readonly choice: TraceChoice }, ReadTrace>({
  name: 'road.trace',
  async run({ file, choice }, { tell, goOn }) {
    const reader = new TraceReader(choice);
    let line = 0;
    const encoding = encodingOf(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()));
    await new Promise<void>((resolve, reject) => {
      Papa.parse<string[]>(file as File, {
        skipEmptyLines: false,
        chunkSize: 1 << 20,
        encoding,
        chunk: ({ data, meta }, parser) => {
          try {
            for (const row of data) reader.push(row, ++line);
            tell(meta.cursor / Math.max(file.size, 1));
            if (!goOn()) throw new InputError('file', 'file was not read to its end.', 'the whole file');
          } catch (error) {
            parser.abort();
            reject(error instanceof Error ? error : new Error(String(error)));
          }
        },
        complete: () => resolve(),
        error: reject,
      });
    });
    const { samples: _, ...read } = reader.finish();
    return read;
  },
});

/** All heavy work that the browser knows, by its name. */
export const JOBS = { ...HEAVY, 'road.trace': trace } as const;

export type JobName = keyof typeof JOBS;
export type JobInput<N extends JobName> = Parameters<(typeof JOBS)[N]['run']>[0];
export type JobOutput<N extends JobName> = Awaited<ReturnType<(typeof JOBS)[N]['run']>>;
export type JobNews<N extends JobName> = NonNullable<Parameters<Parameters<(typeof JOBS)[N]['run']>[1]['tell']>[1]>;

export type JobAnswer =
  | { readonly kind: 'done'; readonly result: unknown; readonly seconds: number }
  | { readonly kind: 'refused'; readonly field: string; readonly message: string; readonly allowed: string };

/** The worker's side, as comlink carries it. `limitS` ends the work with what it has. */
export interface HeavyRemote {
  run(name: JobName, input: unknown, limitS: number, tell: (share: number, news: unknown) => void): Promise<JobAnswer>;
}
