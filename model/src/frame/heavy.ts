/** What a piece of heavy work sees of whoever runs it. It has no clock of its own: the runner throttles and limits. */
export interface HeavyContext<N = unknown> {
  /** Tells how far it is, from 0 to 1, and what is known by now; as often as it likes. */
  tell(share: number, news?: N): void;
  /** Whether it may go on; where it may not, it ends with what it has. */
  goOn(): boolean;
}

/** One piece of work that takes seconds: run in a web worker in the browser, on a thread in the server. */
export interface HeavyWork<Name extends string = string, I = never, O = unknown, N = unknown> {
  readonly name: Name;
  run(input: I, context: HeavyContext<N>): O | Promise<O>;
}

export const defineHeavy = <const Name extends string, I, O, N = undefined>(
  work: HeavyWork<Name, I, O, N>,
): HeavyWork<Name, I, O, N> => work;

/** Runs to the end and tells nobody: for tests and for work that nobody waits for. */
export const unattended: HeavyContext = { tell: () => undefined, goOn: () => true };
