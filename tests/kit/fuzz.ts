import fc from 'fast-check'
import type { Arbitrary } from 'fast-check'
import type Joi from 'joi'

/**
 * Inputs for an endpoint, made from the schema it describes itself by: mostly what it takes, now and then
 * what nobody should send. Seeded by fast-check, so that a failure can be had again.
 */
export function inputsFor(schema: Joi.Schema): Arbitrary<unknown> {
  return arbitraryOf(schema.describe() as Description)
}

interface Description {
  type: string
  flags?: { presence?: string; only?: boolean }
  allow?: unknown[]
  keys?: Record<string, Description>
  items?: Description[]
  matches?: { schema?: Description; switch?: { then?: Description }[] }[]
  rules?: { name: string; args?: Record<string, unknown> }[]
  whens?: unknown[]
}

/** What strangers and broken programs send. */
const ODD_TEXTS = [
  '',
  ' ',
  '\uFFFE\uFFFF',
  '\uD800 half a pair',
  '\u202Egnp.exe',
  'a\u0000b',
  'line one\r\nBcc: everybody@place.example',
  "'; DROP TABLE request; --",
  '%_\\%',
  '👩‍🔧'.repeat(40),
  'x'.repeat(5_000),
  '../../etc/passwd',
  '<script>alert(1)</script>',
  '{"$gt": ""}',
  'null',
  '-0',
  '1e309',
]
const ODD_DAYS = [
  '0000-01-01',
  '-000001-01-01',
  '9999-12-31',
  '10000-01-01',
  '+010000-01-01T00:00:00Z',
  '2026-02-30',
  '9999-12-31T23:59:59.999Z',
  '0000-00-00T00:00:00Z',
  '2026-11-23T25:61:00Z',
]
const ODD_CURSORS = [
  [],
  [1],
  ['x'],
  ['x', 'y'],
  ['x', 1],
  [1, 'x', 2],
  ['filled', 'x', 1],
  ['empty', '', 'x'],
  ['all', '10000-01-01T00:00:00Z', 1],
  [1e308, 1e308],
  ['filled', '', ''],
].map((one) => Buffer.from(JSON.stringify(one)).toString('base64url'))
const odd = fc.oneof(
  fc.constantFrom<unknown>(...ODD_TEXTS),
  fc.constantFrom<unknown>(...ODD_DAYS),
  fc.constantFrom<unknown>(...ODD_CURSORS),
  fc.constantFrom<unknown>(null, true, -1, 0, 1.5, 2 ** 31, 2 ** 53, [], {}, [null], { a: { b: [] } }),
)

function arbitraryOf(one: Description, depth = 0): Arbitrary<unknown> {
  const right = rightly(one, depth)
  return fc.oneof({ weight: depth === 0 ? 30 : 9, arbitrary: right }, { weight: 1, arbitrary: odd })
}

function rightly(one: Description, depth: number): Arbitrary<unknown> {
  const allowed = (one.allow ?? []).filter((value) => typeof value !== 'object' || value === null)
  if (one.flags?.only && allowed.length) return fc.constantFrom(...allowed)
  const free = freely(one, depth)
  return allowed.length ? fc.oneof({ weight: 4, arbitrary: free }, { weight: 1, arbitrary: fc.constantFrom(...allowed) }) : free
}

function freely(one: Description, depth: number): Arbitrary<unknown> {
  const rule = (name: string) => one.rules?.find((each) => each.name === name)?.args
  switch (one.type) {
    case 'object': {
      if (!one.keys) return fc.dictionary(fc.constantFrom('a', 'shows', 'alarm'), fc.constantFrom<unknown>('x', 1, 'yes'))
      const parts = Object.fromEntries(Object.entries(one.keys).map(([key, each]) => [key, arbitraryOf(each, depth + 1)]))
      const needed = Object.entries(one.keys).flatMap(([key, each]) => (each.flags?.presence === 'required' ? [key] : []))
      return fc.record(parts, { requiredKeys: needed })
    }
    case 'array':
      return fc.array(one.items?.length ? fc.oneof(...one.items.map((item) => arbitraryOf(item, depth + 1))) : fc.constant('x'), { maxLength: 3 })
    case 'alternatives':
      return fc.oneof(...(one.matches ?? []).flatMap((each) => (each.schema ? [arbitraryOf(each.schema, depth + 1)] : [])))
    case 'number':
      // Mostly ids and versions that are there.
      return fc.oneof({ weight: 6, arbitrary: fc.integer({ min: 1, max: 30 }) }, { weight: 1, arbitrary: fc.constantFrom(0, 999_999, 2_147_483_647) })
    case 'boolean':
      return fc.boolean()
    case 'date':
      return fc.oneof(
        fc.date({ min: new Date('2026-01-01'), max: new Date('2027-12-31'), noInvalidDate: true }).map((at) => at.toISOString()),
        fc.constantFrom(...ODD_DAYS),
      )
    case 'string': {
      const pattern = rule('pattern')?.regex as string | undefined
      if (rule('email')) return fc.constantFrom('someone@reporter.example', 'maren.quill@skerry.example')
      if (pattern) return matching(pattern)
      const length = Number(rule('max')?.limit ?? 60)
      return fc.oneof(
        fc.string({ unit: 'grapheme', minLength: 1, maxLength: Math.min(length, 60) }),
        fc.constantFrom('SKE', 'tap', '1', 'lift', '2026-11', '-30d', ...ODD_TEXTS, ...ODD_CURSORS),
      )
    }
    case 'any':
      return fc.oneof(fc.constantFrom<unknown>([], {}, 'never'), odd)
    default:
      return odd
  }
}

/** Text that fits a pattern, when it is one the generator understands. */
function matching(pattern: string): Arbitrary<unknown> {
  const [, source = '', flags = ''] = /^\/(.*)\/([a-z]*)$/s.exec(pattern)!
  try {
    return fc.stringMatching(new RegExp(source, flags))
  } catch {
    return fc.constantFrom('2026-11-23', '10:00', 'abc')
  }
}
