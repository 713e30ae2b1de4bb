import type { Logger } from 'pino';
import { Webhook } from 'standardwebhooks';
import type { Database } from '../db/database';

/** What another program has to answer within, ms; how many are called at once. Ours. */
const ANSWER_MS = 10_000;
const AT_ONCE = 4;
/** Waits after each try that failed, s: two days in all, then it is given up. Ours. */
const WAITS_S = [5, 30, 120, 600, 3600, 4 * 3600, 12 * 3600, 24 * 3600] as const;
/** It is looked so often for what is due, ms: a try that failed, or what another server wrote down and did not send. */
const LOOK_MS = 5000;
/** Of what it answers, so much is kept. */
const SAID = 200;

interface Call extends Record<string, unknown> {
  readonly id: string;
  readonly hook_id: string;
  readonly body: string;
  readonly tries: number;
  readonly url: string;
  readonly secret: string;
}

/**
 * Calls one address, signed as Standard Webhooks 1 says (HMAC-SHA256 over id, time and body): who knows the secret knows that it is from
 * us, and by the time that it is not old. Follows nothing that leads elsewhere.
 * @returns why it was not taken; empty where it was
 */
export async function callOnce({
  id,
  url,
  secret,
  body,
}: Pick<Call, 'id' | 'url' | 'secret' | 'body'>): Promise<string> {
  const now = new Date();
  try {
    const answer = await fetch(url, {
      method: 'POST',
      redirect: 'manual',
      signal: AbortSignal.timeout(ANSWER_MS),
      headers: {
        'content-type': 'application/json',
        'user-agent': 'hot-spline',
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
        'webhook-signature': new Webhook(secret).sign(id, now, body),
      },
      body,
    });
    // What it says is not read further than a sentence needs.
    await answer.body?.cancel();
    return answer.ok ? '' : `It answered ${answer.status}.`;
  } catch (error) {
    const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
    const why = cause instanceof Error ? cause.message : String(cause);
    return (cause instanceof Error && cause.name === 'TimeoutError' ? 'It did not answer in time.' : why).slice(
      0,
      SAID,
    );
  }
}

/** Tells other programs what was written down for them: at least once each, in no promised order, later again where it fails. */
export class Teller {
  private readonly timer: NodeJS.Timeout;
  private round: Promise<void> | null = null;
  private again = false;
  private ended = false;

  constructor(
    private readonly db: Database,
    private readonly log: Logger,
  ) {
    this.timer = setInterval(() => this.wake(), LOOK_MS).unref();
  }

  /** There may be something to tell. */
  wake(): void {
    if (this.ended) return;
    if (this.round) {
      this.again = true;
      return;
    }
    this.round = Promise.all(Array.from({ length: AT_ONCE }, () => this.run()))
      .then(() => undefined)
      .catch((error: unknown) => {
        if (!this.ended) this.log.error({ err: error }, 'other programs were not told');
      })
      .finally(() => {
        this.round = null;
        if (!this.again) return;
        this.again = false;
        this.wake();
      });
  }

  async end(): Promise<void> {
    this.ended = true;
    clearInterval(this.timer);
    await this.round;
  }

  private async run(): Promise<void> {
    while (!this.ended) {
      const call = await this.claim();
      if (!call) return;
      const problem = await callOnce(call);
      if (problem === '') await this.took(call);
      else await this.failed(call, problem);
    }
  }

  /** Takes one that is due, for this server alone; should it go down meanwhile, another takes it when its time is over. */
  private async claim(): Promise<Call | undefined> {
    const [call] = await this.db.query<Call>(
      `with one as (
         select id from hook_calls where due <= now() order by due, id limit 1 for update skip locked
       )
       update hook_calls c set tries = c.tries + 1, due = now() + interval '1 minute'
       from one, hooks h where c.id = one.id and h.id = c.hook_id
       returning c.id, c.hook_id, c.body, c.tries, h.url, h.secret`,
    );
    return call;
  }

  private async took({ id, hook_id }: Call): Promise<void> {
    await this.db.transaction(async (tx) => {
      await tx.query('delete from hook_calls where id = $1', [id]);
      await tx.query(`update hooks set ok_at = now(), problem = '' where id = $1`, [hook_id]);
    });
  }

  private async failed({ id, hook_id, tries, url }: Call, problem: string): Promise<void> {
    const wait = WAITS_S[tries - 1];
    this.log.warn({ url, tries, problem }, 'another program did not take what it was told');
    await this.db.transaction(async (tx) => {
      if (wait === undefined) await tx.query('delete from hook_calls where id = $1', [id]);
      else await tx.query('update hook_calls set due = now() + make_interval(secs => $2) where id = $1', [id, wait]);
      const said = wait === undefined ? `${problem} Given up after ${tries} tries.` : problem;
      await tx.query('update hooks set problem = $2 where id = $1', [hook_id, said]);
    });
  }
}
