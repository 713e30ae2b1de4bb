import { routes } from '@hot-spline/model';
import { Router } from 'express';
import { on } from '../base/http';
import type { Queries } from '../db/database';
import { askerOf } from '../base/asker';
import { tell } from '../keep/tell';
import { stillIn } from '../people/sessions';
import { Problem } from '../base/problem';
import type { Feed, Told } from './feed';

/** A line goes out so often even where nothing happens: a proxy lets nothing stand that is silent, and who is gone is noticed. */
const STILL_HERE_MS = 20_000;
/** Ours: a browser has one for all its tabs. */
const MOST_OPEN = 200;
/** Who takes nothing of what is sent is cut off, bytes: it comes back and asks for what it missed. */
const MOST_UNSENT = 256 * 1024;

/** What changes, as it happens, and who is where. */
export function changeRoutes(db: Queries, feed: Feed): Router {
  const router = Router();

  on(router, routes.changes, ({ query, request, response }) => {
    if (feed.open >= MOST_OPEN)
      throw new Problem(503, 'busy', 'Too many listen', `${MOST_OPEN} browsers and programs listen already.`);
    const named = request.headers['last-event-id'];
    const last = (Array.isArray(named) ? named[0] : named) ?? query.since ?? null;
    response.status(200).set({ 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' });
    const { session } = askerOf(response);
    /** Who was signed out hears nothing more. */
    const look = async (): Promise<void> => {
      if (session && !(await stillIn(db, session))) response.end();
    };
    const lookAgain = (): void => void look().catch(() => response.destroy());
    const send = ({ id, change }: Told): void => {
      if (change.of === 'people') lookAgain();
      response.write(`id: ${id}\ndata: ${JSON.stringify(change)}\n\n`);
      if (response.writableLength > MOST_UNSENT) response.destroy();
    };
    // Nothing comes between what was missed and what is heard: both are of this one turn.
    feed.since(last).forEach(send);
    const end = feed.listen(send);
    const timer = setInterval(() => {
      response.write(': still here\n\n');
      lookAgain();
    }, STILL_HERE_MS);
    response.on('close', () => {
      clearInterval(timer);
      end();
    });
  });

  on(router, routes.presence, async ({ body: here, response }) => {
    const { session } = askerOf(response);
    // Who is signed in is where they say they are, and nobody else is.
    await tell(db, { of: 'presence', ...here, who: session?.person.name ?? here.who });
    response.json({ heard: feed.open });
  });

  return router;
}
