import '../base/zod';
import * as z from 'zod';
import type { May } from './people';

export const KB = 1024;

export interface WireBody {
  readonly schema: z.ZodType;
  /** Most bytes. */
  readonly limit: number;
  /** Content types other than JSON. */
  readonly types?: readonly string[];
  /** JSON that the handler reads itself, on a thread where it is large. */
  readonly unread?: true;
  /** Too large to be held: the handler reads it as it comes. */
  readonly spooled?: true;
}

export interface WireAnswer {
  readonly description: string;
  readonly schema?: z.ZodType;
  readonly type?: string;
  /** Other types that it may have, by what is asked for. */
  readonly also?: Readonly<Record<string, string>>;
}

export interface WireRoute {
  /** Who may call it; not said: a looker where it only reads, a builder where it writes. */
  readonly may?: May;
  /** Nothing of it is kept: no line of the audit list is written for it. */
  readonly keeps?: false;
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** With parameters as OpenAPI writes them: `/builds/{id}`. */
  readonly path: string;
  readonly summary: string;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: WireBody;
  readonly answers: Readonly<Record<number, WireAnswer>>;
  /** Statuses of the problem documents that it may answer with, beside 421 and 500. */
  readonly problems: readonly number[];
}

/** Who may call a route. */
export const mayCall = ({ may, method }: WireRoute): May => may ?? (method === 'get' ? 'looker' : 'builder');

export const route = <R extends WireRoute>(one: R): R => one;
export const json = <S extends z.ZodType>(schema: S, description: string) => ({ schema, description });
export const body = <S extends z.ZodType>(schema: S, limit: number) => ({ schema, limit });

export const CSV = { 'text/csv': 'a table, in UTF-8 with its mark' };

export const flag = z.enum(['true', 'false', '1', '0']).optional();
