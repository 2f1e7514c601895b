import type Joi from 'joi'
import toJsonSchema from 'joi-to-json'
import { contract } from '#contract'
import { isOpenDoor } from '#contract/kit'
import type { Endpoint } from '#contract/kit'
import answers from './answers.json'

type Schema = { properties?: Record<string, unknown>; required?: string[]; [key: string]: unknown }

const CONTENT: Record<string, string> = {
  json: 'application/json',
  pdf: 'application/pdf',
  csv: 'text/csv',
  image: 'image/jpeg',
  file: 'application/octet-stream',
  stream: 'text/event-stream',
}

/** The contract as an OpenAPI 3.1 document: every endpoint, generated, nothing written by hand. */
export function openApi(): object {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [name, endpoint] of Object.entries(contract)) {
    const path = endpoint.path.replace(/:(\w+)/g, '{$1}')
    paths[path] = { ...paths[path], [endpoint.method.toLowerCase()]: operation(name, endpoint) }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Evrix',
      version: '1',
      description: 'Every POST carries an Idempotency-Key header. Every edit carries the version it was made from. Failures are problem details per RFC 9457.',
    },
    paths,
    components: {
      schemas: {
        ...answers.definitions,
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            version: { type: 'integer' },
            reasons: {
              type: 'array',
              items: {
                type: 'object',
                required: ['code', 'sentence'],
                properties: { code: { type: 'string' }, sentence: { type: 'string' }, field: { type: 'string' } },
              },
            },
            conflict: { type: 'array', items: { type: 'object', properties: { field: { type: 'string' }, theirs: {}, yours: {} } } },
          },
        },
      },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'evrix_session' } },
    },
  }
}

/** What a JSON answer looks like, generated from its type; files and streams say so by their media type. */
function answerOf(name: string, endpoint: Endpoint<never, unknown>): object {
  if (endpoint.answers && endpoint.answers !== 'json') return {}
  return { schema: (answers.endpoints as Record<string, object>)[name] }
}

function operation(name: string, endpoint: Endpoint<never, unknown>): object {
  const schema = (endpoint.input ? toJsonSchema(endpoint.input as Joi.Schema, 'open-api-3.1') : {}) as Schema
  const inPath = [...endpoint.path.matchAll(/:(\w+)/g)].map((match) => match[1]!)
  const rest = Object.keys(schema.properties ?? {}).filter((key) => !inPath.includes(key))
  const inQuery = endpoint.method === 'GET' || endpoint.upload ? rest : []
  const inBody = inQuery.length ? [] : rest
  const parameter = (place: string) => (key: string) => ({
    name: key,
    in: place,
    required: place === 'path' || (schema.required ?? []).includes(key),
    schema: schema.properties![key],
  })
  const open = isOpenDoor(endpoint.may)
  return {
    operationId: name,
    summary: endpoint.says,
    tags: [endpoint.path.split('/')[2]!.replace('.json', '')],
    ...(open ? {} : { security: [{ session: [] }] }),
    'x-permission': endpoint.may,
    parameters: [
      ...inPath.map(parameter('path')),
      ...inQuery.map(parameter('query')),
      ...(endpoint.method === 'POST'
        ? [{ name: 'Idempotency-Key', in: 'header', required: true, schema: { type: 'string', minLength: 16, maxLength: 80 } }]
        : []),
    ],
    ...(endpoint.upload
      ? {
          requestBody: {
            required: true,
            content: { 'multipart/form-data': { schema: { type: 'object', required: ['file'], properties: { file: { type: 'string', format: 'binary' } } } } },
          },
        }
      : {}),
    ...(inBody.length
      ? {
          requestBody: {
            required: true,
            content: {
              'application/json': {
                schema: {
                  type: 'object',
                  properties: Object.fromEntries(inBody.map((key) => [key, schema.properties![key]])),
                  required: (schema.required ?? []).filter((key) => inBody.includes(key)),
                },
              },
            },
          },
        }
      : {}),
    responses: {
      200: { description: 'Done.', content: { [CONTENT[endpoint.answers ?? 'json']!]: answerOf(name, endpoint) } },
      default: {
        description: 'A problem, with a sentence for each reason.',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  }
}
