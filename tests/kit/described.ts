import Ajv2020 from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv'
import { contract } from '#contract'
import type { Endpoint } from '#contract/kit'
import answers from '../../server/setup/answers.json'

/** Every answer a test receives is held against what the OpenAPI document says of it. */
const ajv = new Ajv2020({ strict: false, allErrors: true, schemas: [{ $id: 'evrix', components: { schemas: answers.definitions } }] })
const known = new Map<string, ValidateFunction>()

export function mustBeAsDescribed(endpoint: Endpoint<never, unknown> | Endpoint<unknown, unknown>, answer: unknown): void {
  if (endpoint.answers && endpoint.answers !== 'json') return
  const name = Object.keys(contract).find((one) => contract[one]!.path === endpoint.path && contract[one]!.method === endpoint.method)
  if (!name) return
  const matches = known.get(name) ?? ajv.compile(pointingAt((answers.endpoints as Record<string, object>)[name]!))
  known.set(name, matches)
  if (matches(answer)) return
  const first = matches.errors!.slice(0, 3).map((error) => `${error.instancePath} ${error.message} ${JSON.stringify(error.params)}`)
  throw new Error(`${name} answers something its description does not allow: ${first.join('; ')}`)
}

const pointingAt = (schema: object) => JSON.parse(JSON.stringify(schema).replaceAll('"#/components/', '"evrix#/components/')) as object
