import {
  InputError,
  packSure,
  roadSearch,
  type FoundSet,
  type PackSure,
  type SearchProblem,
  type SurePack,
} from '@hot-spline/core';
import { TraceReader } from '@hot-spline/model';
import { expose } from 'comlink';
import Papa from 'papaparse';
import type { HeavyWork, SearchAnswer, SearchNews, SureAnswer, TraceAnswer, TraceChoice } from './heavy-protocol';

const TELL_EVERY_MS = 120;

const work: HeavyWork = {
  async search(
    problem: SearchProblem,
    limitS: number,
    tell: (news: SearchNews, best: FoundSet | null) => void,
  ): Promise<SearchAnswer> {
    const started = performance.now();
    let told = started;
    try {
      const result = roadSearch(problem, ({ share, bestS, boundS, best }) => {
        const now = performance.now();
        if (now - told > TELL_EVERY_MS) {
          told = now;
          tell({ share, bestS, boundS }, best);
        }
        return now - started < limitS * 1000;
      });
      return { kind: 'done', result, seconds: (performance.now() - started) / 1000 };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { kind: 'refused', field: error.field, message: error.message, allowed: error.allowed };
    }
  },

  async trace(file: Blob, choice: TraceChoice, tell: (share: number) => void): Promise<TraceAnswer> {
    const reader = new TraceReader(choice);
    let line = 0;
    let told = performance.now();
    try {
      await new Promise<void>((resolve, reject) => {
        Papa.parse<string[]>(file as File, {
          skipEmptyLines: false,
          chunkSize: 1 << 20,
          chunk: ({ data, meta }, parser) => {
            try {
              for (const row of data) reader.push(row, ++line);
            } catch (error) {
              parser.abort();
              reject(error instanceof Error ? error : new Error(String(error)));
            }
            if (performance.now() - told > TELL_EVERY_MS) {
              told = performance.now();
              tell(meta.cursor / Math.max(file.size, 1));
            }
          },
          complete: () => resolve(),
          error: reject,
        });
      });
      const { columns, rows, badCount, bad, notices, course } = reader.finish();
      return { kind: 'done', trace: { columns, rows, badCount, bad, notices, course } };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { kind: 'refused', message: `${error.message} Allowed: ${error.allowed}.` };
    }
  },

  async uncertainty(
    packs: readonly SurePack[],
    samples: number,
    seed: number,
    tell: (share: number) => void,
  ): Promise<SureAnswer> {
    const started = performance.now();
    try {
      const results: PackSure[] = [];
      packs.forEach((pack, i) => {
        const result = packSure(pack, samples, seed, (share) => {
          tell((i + share) / packs.length);
          return true;
        });
        if (result) results.push(result);
      });
      return { kind: 'done', packs: results, seconds: (performance.now() - started) / 1000 };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { kind: 'refused', message: `${error.message} Allowed: ${error.allowed}.` };
    }
  },
};

expose(work);
