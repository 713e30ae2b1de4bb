import '../base/zod';
import * as z from 'zod';
import { calculations } from '../assembly/calculations';
import { KB, body, flag, json, type WireRoute } from './route';

/** Calculations are posted to by name; each has a path of its own in the description. */
export const calculationRoutes = (registry = calculations): WireRoute[] =>
  registry.all().map(({ name, summary, input, output }) => ({
    method: 'post' as const,
    path: `/calc/${name}`,
    summary,
    query: z.strictObject({ working: flag }),
    body: body(input, KB * KB),
    answers: { 200: json(output, 'the result; `working` only where it was asked for') },
    problems: [400, 413, 415, 422, 503, 504],
  }));
