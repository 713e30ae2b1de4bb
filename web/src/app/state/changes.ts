import { serverPath } from '../base/server-path';
import { Injectable } from '@angular/core';
import { routes, type Changed } from '@hot-spline/model/document';
import { Subject } from 'rxjs';
import { Lease } from './lease';

const NAME = 'hot-spline-changes';
/** A server that refuses to be listened to is asked again after this; one that is away the browser itself asks again. */
const AGAIN_MS = 5000;
/** How soon another tab takes over from one that is closed, where the browser has no locks. */
const TAKE_OVER_MS = 2000;

/** Whoever begins to listen so long after its page was opened may have missed something. */
const LATE_MS = 1000;

interface Heard {
  readonly id: string;
  readonly change: Changed;
}

/**
 * What changes on the server, whoever changes it. One tab of this browser listens and tells the others: a browser opens six connections
 * to a server and no more.
 */
@Injectable({ providedIn: 'root' })
export class Changes {
  readonly heard = new Subject<Changed>();
  /** From now on it is heard what others do. */
  readonly listens = new Subject<void>();
  private begun = false;
  private begunAt = 0;
  /** Where the last one stood: the tab that takes over goes on behind it. */
  private last: string | null = null;
  private readonly others = new BroadcastChannel(NAME);

  /** Begins to listen: once, for the whole application. */
  begin(): void {
    if (this.begun) return;
    this.begun = true;
    this.begunAt = performance.now();
    this.others.onmessage = ({ data }: MessageEvent<Heard>) => this.take(data);
    const listen = (): Promise<void> => this.listen();
    // Refused where a browser keeps nothing for a page: then each tab listens for itself.
    const lead =
      'locks' in navigator ? navigator.locks.request(NAME, listen) : new Lease(NAME, TAKE_OVER_MS).run(listen);
    lead.catch((error: unknown) => {
      console.warn('the tabs of this browser can’t agree on who listens', error);
      void listen();
    });
  }

  private take({ id, change }: Heard): void {
    // Who had to wait for its turn, or to sign in, has shown what it read before: what came in between was told to nobody here.
    const late = this.last === null && performance.now() - this.begunAt > LATE_MS;
    this.last = id;
    if (change.of !== 'here') this.heard.next(change);
    else {
      if (late) this.heard.next({ of: 'all' });
      this.listens.next();
    }
  }

  /** Listens as long as this tab is open. */
  private listen(): Promise<never> {
    const open = (): void => {
      const since = this.last === null ? '' : `&since=${encodeURIComponent(this.last)}`;
      const source = new EventSource(serverPath(`${routes.changes.path}?ngsw-bypass=1${since}`));
      source.onmessage = ({ data, lastEventId }: MessageEvent<string>) => {
        const parsed = routes.changes.answers[200].schema.safeParse(JSON.parse(data));
        // A newer server tells of what this program does not know yet.
        const heard: Heard = { id: lastEventId, change: parsed.success ? parsed.data : { of: 'all' } };
        this.take(heard);
        this.others.postMessage(heard);
      };
      source.onerror = () => {
        if (source.readyState !== EventSource.CLOSED) return;
        source.close();
        // It was refused: perhaps nobody is signed in here any more.
        this.heard.next({ of: 'people' });
        setTimeout(open, AGAIN_MS);
      };
    };
    open();
    return new Promise(() => undefined);
  }
}
