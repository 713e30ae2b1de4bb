import '../base/zod';
import * as z from 'zod';
import { calculationRoutes } from './calculation-routes';
import { routes } from './index';
import type { WireAnswer, WireRoute } from './route';
import { problemSchema } from './bodies';
import { jsonSchemaOf, namedSchemas } from '../files/file-schemas';
import { calculations } from '../assembly/calculations';

type Json = Record<string, unknown>;

/** What every route may answer, and what a status means. */
const PROBLEMS: Readonly<Record<number, string>> = {
  400: 'the body is not JSON',
  403: 'a page of another site asked for it',
  404: 'there is nothing of that id',
  405: 'the path is there, but not for this method; `Allow` names those that it takes',
  409: 'it was changed meanwhile, or something else is kept under this id; both versions are in the answer',
  412: 'this is another shop than the one that the write is for (header Hot-Spline-Shop); nothing was kept',
  413: 'the body is larger than is taken',
  415: 'the body is of a type that is not taken',
  421: 'the server was called by a name that is not its own',
  422: 'an input was refused; the field is named',
  500: 'a mistake of the server',
  503: 'too much is running already, or the server is starting or stopping',
  504: 'it took too long and was stopped',
  507: 'the disk has no room for it; nothing was kept, reading goes on',
};

const AT = '#/components/schemas/';
const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): Json => jsonSchemaOf(schema, io, AT);

function answerOf({ description, schema, type, also = {} }: WireAnswer, withWorking: boolean): Json {
  const others = Object.fromEntries(
    Object.entries(also).map(([other, text]) => [other, { schema: { type: 'string', description: text } }]),
  );
  if (!schema) return { description, content: { [type ?? 'application/octet-stream']: { schema: {} } } };
  const shape = schemaOf(schema, 'output');
  const properties = shape['properties'];
  const working = { type: 'object', description: 'formula, inputs, steps and sources; only with `?working=true`' };
  const whole = withWorking && properties ? { ...shape, properties: { ...properties, working } } : shape;
  return { description, content: { [type ?? 'application/json']: { schema: whole }, ...others } };
}

/** What the parameters of paths and queries say, by their name, or by route and name. */
const PARAMETERS: Readonly<Record<string, string>> = {
  id: 'which one',
  'keepPhoto.id': 'SHA-256 of the bytes that are sent',
  'photo.id': 'SHA-256 of the bytes that were once sent',
  name: 'which one, by its name',
  'template.name': 'what the build is called',
  vehicle: 'what it is about',
  use: 'what it is for',
  driven: 'which axles are',
  power: 'what drives it',
  construction: 'how its axle is built; not said: not known yet',
  version: 'which version, from 1',
  kind: 'which gauge',
  as: 'how it is written',
  search: 'words that stand in it, by how they begin',
  state: 'how far the work is',
  worker: 'whose work it is: the whole name, as it is written',
  rest: 'what it waits for',
  job: 'what kind of job is on it',
  weeks: 'how many weeks are looked at',
  code: 'what was scanned',
  promised: '`overdue`: the day is past and it is not done; `week`: within seven days',
  today: 'the day it is where it is asked; not said: where the server is',
  archived: 'whether those that were put away are meant',
  sort: 'what they are ordered by',
  offset: 'how many are left out at the beginning',
  limit: 'how many at most',
  of: 'a part, bolt or set as it is written here; not said: what there is',
  axle: 'the axle that is followed; not said: the driven one',
  system: 'units of the words',
  gear: 'counted from 0; not said: as the build starts',
  range: 'of the transfer case, counted from 0',
  rpm: 'of the engine',
  working: 'whether formula, inputs, steps and sources come with it',
  over: 'how many entries the ledger had when this one was made',
  customers: '`false`: without names and addresses of customers',
  since: 'where one stands: what came behind it is told first',
  'ngsw-bypass': 'anything: the service worker of the app lets it through',
  spec: 'lessons of axles of this spec alone',
  drawer: 'what is held out of this drawer alone',
  values: 'what is there in truth, apart by semicolons',
  seed: 'of the scatter of its needle',
  key: 'the secret part of the link',
  before: 'lines before the one of this number',
};

const isWrite = ({ method, path }: WireRoute): boolean => method !== 'get' && !path.startsWith('/calc');

const SHOP_PARAMETER: Json = {
  name: 'Hot-Spline-Shop',
  in: 'header',
  required: false,
  description: 'id of the shop that this is for, as GET /api/shop says it: another shop refuses it',
  schema: { type: 'string', format: 'uuid' },
};

function parametersOf(id: string, route: WireRoute): Json[] {
  const { params, query } = route;
  const list = (where: 'path' | 'query', of: z.ZodObject | undefined): Json[] => {
    if (!of) return [];
    const { properties = {}, required = [] } = z.toJSONSchema(of, { io: 'input' }) as {
      properties?: Json;
      required?: string[];
    };
    return Object.entries(properties).map(([name, schema]) => ({
      name,
      in: where,
      required: where === 'path' || required.includes(name),
      description: PARAMETERS[`${id}.${name}`] ?? PARAMETERS[name],
      schema,
    }));
  };
  return [...list('path', params), ...list('query', query), ...(isWrite(route) ? [SHOP_PARAMETER] : [])];
}

function operationOf(id: string, route: WireRoute, example?: unknown): Json {
  const { summary, body, answers, problems } = route;
  const withWorking = route.path.startsWith('/calc/') && route.method === 'post';
  const problem = { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } };
  const bodyOf = (): Json => {
    if (!body) return {};
    const content: Json = {};
    if (body.types) for (const type of body.types) content[type] = { schema: { type: 'string', format: 'binary' } };
    else
      content['application/json'] = {
        schema: schemaOf(body.schema, 'input'),
        ...(example === undefined ? {} : { example }),
      };
    return { requestBody: { required: true, content } };
  };
  return {
    operationId: id,
    summary,
    parameters: parametersOf(id, route),
    ...bodyOf(),
    responses: {
      ...Object.fromEntries(Object.entries(answers).map(([status, one]) => [status, answerOf(one, withWorking)])),
      ...Object.fromEntries(
        [...new Set([...problems, 403, 405, 421, 500, 503, ...(isWrite(route) ? [412, 507] : [])])].map((status) => [
          String(status),
          { description: PROBLEMS[status], content: problem },
        ]),
      ),
    },
  };
}

/** OpenAPI 3.1 of every route, made from the same Zod schemas that check the input. */
export function openApi(version: string, registry = calculations, server = '/'): Json {
  const paths: Record<string, Json> = {};
  const add = (id: string, route: WireRoute, example?: unknown): void => {
    const path = `/api${route.path}`;
    paths[path] = { ...paths[path], [route.method]: operationOf(id, route, example) };
  };
  for (const [id, route] of Object.entries(routes)) if (id !== 'calculate') add(id, route);
  for (const route of calculationRoutes(registry)) {
    const name = route.path.slice('/calc/'.length);
    add(
      name.replace(/\.(\w)/g, (_, letter: string) => letter.toUpperCase()),
      route,
      registry.get(name).example,
    );
  }
  const { $schema: _, ...problem } = z.toJSONSchema(problemSchema) as Json;
  return {
    openapi: '3.1.0',
    info: { title: 'Hot Spline', version },
    servers: [{ url: server, description: 'where this description came from' }],
    paths,
    components: { schemas: { Problem: problem, ...namedSchemas(AT) } },
  };
}
