import { contract } from '#contract'
import type { Endpoint } from '#contract/kit'

type FaultsOf = (name: string, answer: unknown) => string[]

/** Kept for all suites of a process (`environment.mjs`). What is measured rather than tested goes without. */
function faultsOf(): FaultsOf {
  const kept = (globalThis as { faultsOf?: FaultsOf }).faultsOf
  if (!kept && process.env.JEST_WORKER_ID) throw new Error('This suite runs outside of tests/kit/environment.mjs, which checks the answers.')
  return kept ?? (() => [])
}

/** Every answer a test receives is held against what the OpenAPI document says of it. */
export function mustBeAsDescribed(endpoint: Endpoint<never, unknown> | Endpoint<unknown, unknown>, answer: unknown): void {
  if (endpoint.answers && endpoint.answers !== 'json') return
  const name = Object.keys(contract).find((one) => contract[one]!.path === endpoint.path && contract[one]!.method === endpoint.method)
  if (!name) return
  const faults = faultsOf()(name, answer)
  if (faults.length) throw new Error(`${name} answers something its description does not allow: ${faults.join('; ')}`)
}
