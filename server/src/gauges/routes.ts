import { standInReading } from '@hot-spline/core';
import { routes } from '@hot-spline/model';
import { Router } from 'express';
import { on } from '../base/http';
import { Problem } from '../base/problem';

/** How often a stand-in sends a line, and how long at most: a page that is left open does not hold it for ever. */
const EVERY_MS = 50;
const LONGEST_MS = 15 * 60_000;
const MOST_OPEN = 24;

/** The simulated gauges that ship with it: plain text lines, as a serial line would send them. `pace`: times as fast as real. */
export function gaugeRoutes(pace: number): Router {
  const router = Router();
  let open = 0;

  on(router, routes.standIn, ({ params: { kind }, query: { values, seed }, request, response }) => {
    if (open >= MOST_OPEN)
      throw new Problem(503, 'busy', 'Too many gauges', `${MOST_OPEN} simulated gauges are read already.`);
    const truth = values.split(';').map(Number);
    const first = standInReading(kind, truth, seed, 0);
    open += 1;
    response
      .status(200)
      .set({ 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no', Connection: 'keep-alive' });
    response.flushHeaders();
    const send = ({ value, unit }: typeof first): void => {
      response.write(`data: ${value < 0 ? '' : '+'}${value} ${unit}\n\n`);
    };
    send(first);
    let at = 0;
    const timer = setInterval(() => {
      // By lines sent, not by the clock: a busy machine is a slow gauge, and misses no swing of it.
      at += EVERY_MS;
      if (at > LONGEST_MS) response.end();
      else send(standInReading(kind, truth, seed, at));
    }, EVERY_MS / pace);
    request.on('close', () => {
      clearInterval(timer);
      open -= 1;
    });
  });

  return router;
}
