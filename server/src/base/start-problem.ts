/** Why the server does not start, in one sentence, and what to do about it. */
export class StartProblem extends Error {
  constructor(
    message: string,
    readonly advice: string,
  ) {
    super(message);
  }
}
