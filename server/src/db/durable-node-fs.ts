import fs from 'node:fs';
import { NodeFS } from '@electric-sql/pglite/nodefs';

interface EmscriptenStream {
  readonly nfd?: number;
}

interface EmscriptenModule {
  NODEFS: { stream_ops: { fsync?: (stream: EmscriptenStream) => number } };
}

type InitOptions = Parameters<NodeFS['init']>[1];

/**
 * PGlite's Node file system with an fsync that reaches the disk. PGlite itself has none, so that a commit would be
 * lost in a power cut. It hooks an internal of PGlite 0.5: the version is pinned, and a test counts the calls.
 */
export class DurableNodeFs extends NodeFS {
  override async init(pg: Parameters<NodeFS['init']>[0], options: InitOptions): ReturnType<NodeFS['init']> {
    const result = await super.init(pg, options);
    const preRun = [...((result.emscriptenOpts.preRun as ((module: unknown) => void)[] | undefined) ?? [])];
    preRun.push((module) => {
      const { stream_ops: operations } = (module as EmscriptenModule).NODEFS;
      operations.fsync = (stream) => {
        if (stream.nfd !== undefined) fs.fsyncSync(stream.nfd);
        return 0;
      };
    });
    return { emscriptenOpts: { ...result.emscriptenOpts, preRun } as typeof result.emscriptenOpts };
  }
}
