import { calculations } from '../capabilities';

const errorSchema = {
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      required: ['field', 'message', 'allowed'],
      properties: { field: { type: 'string' }, message: { type: 'string' }, allowed: { type: 'string' } },
    },
  },
};

/** OpenAPI 3.1 of the calculation endpoint, made from the same Zod schemas that check the input. */
export function openApi(version: string): Record<string, unknown> {
  const paths: Record<string, unknown> = {};
  for (const name of calculations.names()) {
    const { summary, input, output, example } = calculations.describe(name);
    paths[`/api/calc/${name}`] = {
      post: {
        operationId: name.replace(/\.(\w)/g, (_, letter: string) => letter.toUpperCase()),
        summary,
        parameters: [
          {
            name: 'working',
            in: 'query',
            schema: { type: 'boolean' },
            description: 'also return formula, inputs, steps and sources',
          },
        ],
        requestBody: { required: true, content: { 'application/json': { schema: input, example } } },
        responses: {
          '200': { description: 'the result', content: { 'application/json': { schema: output } } },
          '422': {
            description: 'an input was refused; the field is named',
            content: { 'application/problem+json': { schema: errorSchema } },
          },
        },
      },
    };
  }
  return { openapi: '3.1.0', info: { title: 'Hot Spline calculations', version }, paths };
}
