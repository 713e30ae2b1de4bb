import { InputError } from '@hot-spline/core';
import {
  AXLES,
  BuildDeriver,
  FORMAT_VERSION,
  HEAVY,
  boardWork,
  buildSchema,
  deriveBuild,
  holdingsOf,
  ledgerEntrySchema,
  ledgerWords,
  pastOf,
  readingsInForce,
  timesOf,
  listedParts,
  type BoardWork,
  type Build,
  type BuildFile,
  type HeavyContext,
  type Holding,
  type JobTimes,
  type LedgerEntry,
  type Looking,
  type PastSetup,
  type PhotoFile,
  type ShownFigures,
  type ListedPart,
} from '@hot-spline/model';
import { ledgerCsv } from '@hot-spline/model/csv';
import { open } from '../base/kept';
import { prepareBuild } from './prepare';

/** A build and its ledger as they are kept: opened where they are worked with. */
export interface KeptBuild {
  readonly document: { readonly format: number; readonly text: string };
  /** Its entries in order, as one text: thousands of small things are slow to send to a thread. */
  readonly entries: string;
  readonly count: number;
}

/** What stands between entries of a ledger in one text: no JSON holds it bare [RFC 8259, 7]. */
export const APART = '\u001e';
/** Of an entry: id, format, text. */
function partsOf(line: string): string[] {
  const first = line.indexOf(' ');
  const second = line.indexOf(' ', first + 1);
  return [line.slice(0, first), line.slice(first + 1, second), line.slice(second + 1)];
}

/** A photo of a build as it is kept; `kept`: the hash of these bytes, where they are not what was sent. */
export interface KeptPhoto {
  readonly id: string;
  readonly type: PhotoFile['type'];
  readonly bytes: Uint8Array;
  readonly kept?: string;
}

/** What the board shows of a build and what other builds learn from it; `unread` says why that can’t be known. */
export interface Noted {
  readonly unread: string | null;
  readonly work: BoardWork | null;
  readonly words: readonly string[];
  readonly holdings: readonly Holding[];
  readonly lessons: readonly PastSetup[];
  readonly times: readonly JobTimes[];
  /** What stands on its parts lists. */
  readonly parts: readonly ListedPart[];
}

class Unread extends InputError {
  constructor(why: string, what: 'build' | 'ledger' = 'build') {
    super(what, why, 'a build that this program can read');
  }
}

function opened({ document, entries }: KeptBuild): { build: Build; ledger: LedgerEntry[] } {
  const build = open(buildSchema, 'build', document.format, document.text);
  if (!build.value) throw new Unread(build.unreadable ?? '');
  return { build: build.value, ledger: openedLedger({ entries }) };
}

function openedLedger({ entries }: Pick<KeptBuild, 'entries'>): LedgerEntry[] {
  if (entries === '') return [];
  return entries.split(APART).map((line) => {
    const [id = '', format = '', text = ''] = partsOf(line);
    const entry = open(ledgerEntrySchema, 'ledger-entry', Number(format), text);
    if (!entry.value) throw new Unread(`Entry ${id}: ${entry.unreadable}`, 'ledger');
    return entry.value;
  });
}

/** What an axle taught. */
function lessonsOf(build: Build, ledger: readonly LedgerEntry[]): PastSetup[] {
  const { mesh } = new BuildDeriver(true).derive(build, ledger);
  return AXLES.flatMap((name) => {
    const [axle, spec] = [mesh[name], build.axles[name]?.identity?.name];
    const past = axle && spec !== undefined ? pastOf(axle, spec) : null;
    return past ? [past] : [];
  });
}

function note(kept: KeptBuild): Noted {
  try {
    const { build, ledger } = opened(kept);
    const readings = readingsInForce(ledger);
    const shown = { unread: null, work: boardWork(build, ledger), words: ledgerWords(ledger) };
    // Practice takes nothing out of drawers and teaches nothing.
    return build.practice === null
      ? {
          ...shown,
          holdings: holdingsOf(readings),
          lessons: lessonsOf(build, ledger),
          times: timesOf(build, readings),
          parts: listedParts(build),
        }
      : { ...shown, holdings: [], lessons: [], times: [], parts: [] };
  } catch (error) {
    if (!(error instanceof Unread)) throw error;
    return { unread: error.message, work: null, words: [], holdings: [], lessons: [], times: [], parts: [] };
  }
}

export interface FiguresAsked {
  readonly id: string;
  readonly version: number;
  readonly kept: KeptBuild;
  readonly looking: Omit<Looking, 'point'> & { readonly gear?: number; readonly range?: number; readonly rpm?: number };
  readonly system: 'inch' | 'metric';
  readonly withWorking: boolean;
}

function figures({ id, version, kept, looking, system, withWorking }: FiguresAsked): ShownFigures {
  const { build, ledger } = opened(kept);
  const { gear, range, rpm, ...rest } = looking;
  const at = build.startPoint;
  const point = { gear: gear ?? at.gear, range: range ?? at.range, rpm: rpm ?? at.rpm };
  const derived = deriveBuild(build, ledger, { ...rest, point });
  return {
    id,
    version,
    axle: derived.main,
    point: derived.point,
    figures: [...derived.figures.values()].map(({ explain, id: figure, label, value, quantity, instead, rests }) => ({
      id: figure,
      label,
      value,
      quantity,
      ...(instead === undefined ? {} : { instead }),
      rests,
      ...(withWorking && explain && value !== null ? { working: { ...explain() } } : {}),
    })),
    findings: derived.findings.map(({ say, ...finding }) => ({
      ...finding,
      figures: [...finding.figures],
      facts: { ...finding.facts },
      ...say(system),
    })),
  };
}

/** The ledger of a build, as it is given out. */
function ledger({ kept, as }: { readonly kept: KeptBuild; readonly as: 'json' | 'csv' }): LedgerEntry[] | string {
  const entries = openedLedger(kept);
  return as === 'csv' ? ledgerCsv(entries) : entries;
}

/** A build with its ledger and photos, as one file. */
function buildFile({ kept, photos }: { readonly kept: KeptBuild; readonly photos: readonly KeptPhoto[] }): BuildFile {
  const { build, ledger: entries } = opened(kept);
  const files = photos.map(({ bytes, ...photo }) => ({ ...photo, data: Buffer.from(bytes).toString('base64') }));
  return {
    format: 'hot-spline/build-file',
    formatVersion: FORMAT_VERSION,
    build,
    ledger: entries,
    ...(files.length > 0 ? { photos: files } : {}),
  };
}

/** What runs on threads, by its name: it takes and gives what can be sent to one, and has no database. */
export const TASKS = {
  calculation: HEAVY.calculation.run,
  note,
  figures,
  ledger,
  buildFile,
  prepareBuild,
} as const satisfies Readonly<Record<string, (input: never, context: HeavyContext) => unknown>>;

export type TaskName = keyof typeof TASKS;
export type TaskInput<N extends TaskName> = Parameters<(typeof TASKS)[N]>[0];
