import { readFileSync } from 'node:fs'
import path from 'node:path'
import Ajv2020 from 'ajv/dist/2020.js'
import { TestEnvironment } from 'jest-environment-node'

/**
 * What suites share that run one after another in one process: the checks of answers against what the OpenAPI document
 * says of them, made once when first needed instead of by each suite.
 */
const answers = JSON.parse(readFileSync(path.join(import.meta.dirname, '../../server/setup/answers.json'), 'utf8'))
// They look at few answers each: what makes a check quicker costs more than it saves.
const ajv = new Ajv2020({
  strict: false,
  allErrors: true,
  inlineRefs: false,
  code: { optimize: false },
  schemas: [{ $id: 'evrix', components: { schemas: answers.definitions } }],
})
const known = new Map()

/** The first that speak against an answer of this endpoint; none where it is as described. */
function faultsOf(name, answer) {
  if (!known.has(name)) known.set(name, ajv.compile(pointingAt(answers.endpoints[name])))
  const matches = known.get(name)
  if (matches(answer)) return []
  return matches.errors.slice(0, 3).map((error) => `${error.instancePath} ${error.message} ${JSON.stringify(error.params)}`)
}

const pointingAt = (schema) => JSON.parse(JSON.stringify(schema).replaceAll('"#/components/', '"evrix#/components/'))

export default class Environment extends TestEnvironment {
  async setup() {
    await super.setup()
    this.global.faultsOf = faultsOf
  }
}
