import type { Build, BuildFile, LedgerEntry, LibrarySpec } from '@hot-spline/model';

export interface BuildSummary {
  readonly id: string;
  readonly name: string;
  readonly vehicle: string;
  readonly use: string;
  readonly version: number;
  readonly updatedAt: string;
  readonly archived: boolean;
  /** Days on which an axle is to be looked at again, the first first. */
  readonly rechecks: readonly { readonly on: string; readonly why: string }[];
}

export interface StoredBuild {
  readonly id: string;
  readonly version: number;
  readonly build: Build;
}

export interface StoredSpec {
  readonly id: string;
  readonly version: number;
  readonly archived: boolean;
  readonly spec: LibrarySpec;
}

/** An answer of the server that is no success; `status` 0: no answer at all. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly body: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }

  /** Sending the same again later may work. */
  get passing(): boolean {
    return this.status === 0 || this.status >= 500 || this.status === 429;
  }
}

const TIMEOUT_MS = 15_000;

async function call<T>(method: string, url: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    const blob = body instanceof Blob ? body : null;
    response = await fetch(url, {
      method,
      headers: body === undefined ? {} : { 'content-type': blob?.type ?? 'application/json' },
      body: body === undefined ? null : (blob ?? JSON.stringify(body)),
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
  } catch (error) {
    throw new ApiError(
      0,
      error instanceof Error && error.name === 'TimeoutError'
        ? 'The server does not answer.'
        : 'The server can’t be reached.',
    );
  }
  const isJson = response.headers.get('content-type')?.includes('json') ?? false;
  const answer: unknown = isJson ? await response.json() : null;
  if (!response.ok) {
    const problem = (answer ?? {}) as Record<string, unknown>;
    throw new ApiError(
      response.status,
      String(problem['detail'] ?? `The server answered ${response.status}.`),
      problem,
    );
  }
  return answer as T;
}

/** The server, as the app calls it. */
export const api = {
  builds: () => call<BuildSummary[]>('GET', '/api/builds'),
  build: (id: string) => call<StoredBuild>('GET', `/api/builds/${id}`),
  ledger: (id: string) => call<LedgerEntry[]>('GET', `/api/builds/${id}/ledger`),
  create: (id: string, file: BuildFile) => call<{ id: string; version: number }>('POST', '/api/builds', { id, file }),
  save: (id: string, write: { writeId: string; baseVersion: number; build: Build }) =>
    call<{ version: number }>('PUT', `/api/builds/${id}`, write),
  append: (id: string, entry: LedgerEntry) => call<{ id: string }>('POST', `/api/builds/${id}/ledger`, entry),
  archive: (id: string, archived: boolean) => call<unknown>('POST', `/api/builds/${id}/archive`, { archived }),
  library: () => call<StoredSpec[]>('GET', '/api/library'),
  saveSpec: (id: string, write: { writeId: string; baseVersion: number; spec: LibrarySpec }) =>
    call<{ version: number }>('PUT', `/api/library/${id}`, write),
  archiveSpec: (id: string, archived: boolean) => call<unknown>('POST', `/api/library/${id}/archive`, { archived }),
  keepPhoto: (id: string, photo: Blob) => call<{ id: string }>('PUT', `/api/photos/${id}`, photo),
  exportBuild: (id: string) => call<BuildFile>('GET', `/api/builds/${id}/export`),
};
