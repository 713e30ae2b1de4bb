import type {
  Arrival,
  Audit,
  Board,
  BoardWeek,
  Build,
  BuildFile,
  BuildSummary,
  Customer,
  CustomerWrite,
  HealthAnswer,
  Hook,
  HookWrite,
  LedgerEntry,
  LibrarySpec,
  Me,
  PartsToOrder,
  People,
  Presence,
  Recall,
  Role,
  Scanned,
  SetUps,
  Shop,
  ShopSettings,
  StoredBuild,
  WireRoute,
  z,
} from '@hot-spline/model';
import { Subject } from 'rxjs';
import { keptAnswer } from '../base/device-store';
import { serverPath } from '../base/server-path';
import { SHOP_HEADER, routes } from '@hot-spline/model/document';

export type { BuildSummary, Shop, StoredBuild, StoredSpec } from '@hot-spline/model';

/** An answer of the server that is no success; `status` 0: no answer at all. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly body: Readonly<Record<string, unknown>> = {},
    /** What came back is nothing that this program understands, whatever its status. */
    readonly unreadable = false,
  ) {
    super(message);
  }
}

/** The server wants somebody to sign in, and nobody is. */
export const signInWanted = new Subject<void>();

const TIMEOUT_MS = 15_000;

type AnswersOf<R extends WireRoute> = R['answers'][keyof R['answers']];
type AnswerOf<R extends WireRoute> =
  AnswersOf<R> extends { readonly schema: infer S extends z.ZodType } ? z.output<S> : never;

interface Sent {
  readonly params?: Readonly<Record<string, string | number>>;
  readonly body?: unknown;
  readonly query?: Readonly<Record<string, string | number>>;
  /** It may take as long as it takes. */
  readonly patient?: true;
  /** The shop that a write was made for: another one does not take it. */
  readonly shop?: string;
}

/**
 * What the service worker keeps for while the server is away (ngsw-config.json). All else goes past it: while it is being put in, on the
 * first visit, it holds up whatever asks it.
 */
const KEPT: ReadonlySet<WireRoute> = new Set<WireRoute>([
  ...[routes.builds, routes.build, routes.ledger, routes.library, routes.setUps],
]);

function addressOf({ path }: WireRoute, params: Sent['params'] = {}): string {
  return serverPath(path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(params[name] ?? '')));
}

const queryOf = (query: Sent['query']): string =>
  query === undefined
    ? ''
    : `?${new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString()}`;

async function jsonOf(response: Response): Promise<unknown> {
  if (!response.headers.get('content-type')?.includes('json')) return undefined;
  try {
    return await response.json();
  } catch {
    return undefined;
  }
}

const AWAY = [502, 503, 504];
/** Whether it is a problem document of this program. */
const isOurs = (answer: unknown): boolean =>
  typeof answer === 'object' && String((answer as { type?: unknown } | null)?.type).startsWith('urn:hot-spline:');

/**
 * Calls a route of the wire and checks what comes back by its schema.
 * @throws ApiError for everything but a success that can be read
 */
async function call<R extends WireRoute>(
  route: R,
  { params, body, query, patient, shop = '' }: Sent = {},
): Promise<AnswerOf<R>> {
  let response: Response;
  try {
    const blob = body instanceof Blob ? body : null;
    response = await fetch(`${addressOf(route, params)}${queryOf(query)}`, {
      method: route.method.toUpperCase(),
      headers: {
        ...(body === undefined ? {} : { 'content-type': blob?.type ?? 'application/json' }),
        ...(shop === '' ? {} : { [SHOP_HEADER]: shop }),
        ...(KEPT.has(route) ? {} : { 'ngsw-bypass': 'true' }),
      },
      body: body === undefined ? null : (blob ?? JSON.stringify(body)),
      signal: patient ? null : AbortSignal.timeout(TIMEOUT_MS),
    });
  } catch (error) {
    const late = error instanceof Error && error.name === 'TimeoutError';
    throw new ApiError(0, late ? 'The server does not answer.' : 'The server can’t be reached.');
  }
  let answer = await jsonOf(response);
  // What the service worker, or a proxy, answers in place of a server that is away: what this device has kept stands for it.
  if (AWAY.includes(response.status) && !isOurs(answer)) {
    const kept = route.method === 'get' ? await keptAnswer(response.url) : null;
    if (!kept) throw new ApiError(0, 'The server can’t be reached.');
    response = kept;
    answer = await jsonOf(kept);
  }
  if (!response.ok) {
    const problem = typeof answer === 'object' && answer !== null ? (answer as Record<string, unknown>) : {};
    if (problem['type'] === 'urn:hot-spline:sign-in') signInWanted.next();
    const detail = problem['detail'] ?? `The server answered ${response.status}.`;
    throw new ApiError(response.status, String(detail), problem, answer === undefined);
  }
  const parsed = route.answers[response.status]?.schema?.safeParse(answer);
  if (!parsed?.success)
    throw new ApiError(response.status, 'The answer of the server can’t be read.', { answer }, true);
  return parsed.data as AnswerOf<R>;
}

/** The server, as the app calls it. What changes something carries the shop that it is for, and goes through the outbox alone. */
export const api = {
  me: (): Promise<Me> => call(routes.me),
  calendarLink: () => call(routes.calendarLink),
  makeCalendarLink: () => call(routes.makeCalendarLink),
  dropCalendarLink: () => call(routes.dropCalendarLink),
  presence: (here: Presence) => call(routes.presence, { body: here }),
  signIn: (name: string, password: string): Promise<Me> => call(routes.signIn, { body: { name, password } }),
  signOut: (everywhere: boolean): Promise<Me> => call(routes.signOut, { body: { everywhere } }),
  switchPerson: (id: string, pin: string): Promise<Me> => call(routes.switchPerson, { body: { id, pin } }),
  savePin: (password: string, pin: string | null): Promise<Me> => call(routes.savePin, { body: { password, pin } }),
  savePassword: (before: string, password: string): Promise<Me> =>
    call(routes.savePassword, { body: { before, password } }),
  firstOwner: (name: string, password: string): Promise<Me> => call(routes.firstOwner, { body: { name, password } }),
  people: (): Promise<People> => call(routes.people),
  changePerson: (id: string, change: { readonly role?: Role; readonly active?: boolean }): Promise<People> =>
    call(routes.changePerson, { params: { id }, body: change }),
  signOutPerson: (id: string): Promise<People> => call(routes.signOutPerson, { params: { id } }),
  invite: (role: Role) => call(routes.invite, { body: { role } }),
  acceptInvitation: (token: string, name: string, password: string): Promise<Me> =>
    call(routes.acceptInvitation, { body: { token, name, password } }),
  dropInvitation: (id: string): Promise<People> => call(routes.dropInvitation, { params: { id } }),
  audit: (limit: number, before?: number): Promise<Audit> =>
    call(routes.audit, { query: before === undefined ? { limit } : { limit, before } }),
  shop: (): Promise<Shop> => call(routes.shop),
  health: (): Promise<HealthAnswer> => call(routes.health),
  check: (): Promise<HealthAnswer> => call(routes.check),
  backup: (): Promise<HealthAnswer> => call(routes.backup),
  restore: (file: Blob) => call(routes.restore, { body: file.slice(0, file.size, 'application/zip'), patient: true }),
  arrivals: (): Promise<Arrival[]> => call(routes.arrivals),
  sendArchive: (shop: string, file: Blob): Promise<Arrival> =>
    call(routes.sendArchive, { body: file.slice(0, file.size, 'application/zip'), patient: true, shop }),
  takeArchive: (shop: string, id: string, customers: boolean): Promise<Arrival> =>
    call(routes.takeArchive, { params: { id }, body: { customers }, shop }),
  dropArchive: (shop: string, id: string): Promise<Arrival> =>
    call(routes.dropArchive, { params: { id }, patient: true, shop }),
  board: (query: Readonly<Record<string, string | number>>): Promise<Board> => call(routes.board, { query }),
  boardWeek: (query: { readonly today: string; readonly weeks: number }): Promise<BoardWeek> =>
    call(routes.boardWeek, { query }),
  workers: (): Promise<string[]> => call(routes.workers),
  scan: (code: string): Promise<Scanned> => call(routes.scan, { query: { code } }),
  partsToOrder: (): Promise<PartsToOrder> => call(routes.partsToOrder),
  hooks: (): Promise<Hook[]> => call(routes.hooks),
  addHook: (hook: HookWrite) => call(routes.addHook, { body: hook }),
  testHook: (id: string) => call(routes.testHook, { params: { id } }),
  dropHook: (id: string) => call(routes.dropHook, { params: { id } }),
  recall: (of?: string): Promise<Recall> => call(routes.recall, of === undefined ? {} : { query: { of } }),
  customers: (): Promise<Customer[]> => call(routes.customers),
  saveCustomer: (shop: string, id: string, customer: CustomerWrite): Promise<Customer> =>
    call(routes.saveCustomer, { params: { id }, body: customer, shop }),
  eraseCustomer: (shop: string, id: string) => call(routes.eraseCustomer, { params: { id }, shop }),
  saveShop: (shop: string, settings: ShopSettings): Promise<Shop> => call(routes.saveShop, { body: settings, shop }),
  builds: (): Promise<BuildSummary[]> => call(routes.builds),
  build: (id: string): Promise<StoredBuild> => call(routes.build, { params: { id } }),
  buildVersion: (id: string, version: number): Promise<StoredBuild> =>
    call(routes.buildVersion, { params: { id, version } }),
  ledger: (id: string): Promise<LedgerEntry[]> => call(routes.ledger, { params: { id } }),
  create: (shop: string, id: string, file: BuildFile) => call(routes.createBuild, { body: { id, file }, shop }),
  save: (shop: string, id: string, write: { writeId: string; baseVersion: number; who: string; build: Build }) =>
    call(routes.saveBuild, { params: { id }, body: write, shop }),
  append: (shop: string, id: string, entry: LedgerEntry, over?: number) =>
    call(routes.appendLedger, {
      params: { id },
      body: entry,
      shop,
      ...(over === undefined ? {} : { query: { over } }),
    }),
  archive: (shop: string, id: string, archived: boolean) =>
    call(routes.archiveBuild, { params: { id }, body: { archived }, shop }),
  setUps: (): Promise<SetUps> => call(routes.setUps),
  library: () => call(routes.library),
  saveSpec: (
    shop: string,
    id: string,
    write: { writeId: string; baseVersion: number; who: string; spec: LibrarySpec },
  ) => call(routes.saveSpec, { params: { id }, body: write, shop }),
  archiveSpec: (shop: string, id: string, archived: boolean) =>
    call(routes.archiveSpec, { params: { id }, body: { archived }, shop }),
  keepPhoto: (shop: string, id: string, photo: Blob) => call(routes.keepPhoto, { params: { id }, body: photo, shop }),
  photo: async (id: string): Promise<Blob> => {
    const answer = await fetch(addressOf(routes.photo, { id }));
    if (!answer.ok) throw new ApiError(answer.status, `The server answered ${answer.status}.`);
    return answer.blob();
  },
  exportBuild: (id: string): Promise<BuildFile> => call(routes.exportBuild, { params: { id } }),
};
