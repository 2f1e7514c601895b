import { makeClock } from './clock'
import { decodeCursor, encodeCursor } from './keyset'
import { makeLinks, randomToken, sha256 } from './tokens'

describe('private links', () => {
  const links = makeLinks('the secret')

  test('can be made again from the nonce and the secret, and from nothing else', () => {
    const made = links.fresh('request')
    expect(links.again('request', made.nonce)).toBe(made.token)
    expect(sha256(made.token)).toBe(made.hash)
    expect(links.again('pass', made.nonce)).not.toBe(made.token)
    expect(makeLinks('another secret').again('request', made.nonce)).not.toBe(made.token)
  })

  test('are 256 bits that never repeat', () => {
    const tokens = new Set(Array.from({ length: 500 }, () => links.fresh('pass').token))
    expect(tokens.size).toBe(500)
    for (const token of [...tokens, randomToken()]) expect(token).toMatch(/^[A-Za-z0-9_-]{43}$/)
  })
})

test('a cursor comes back as it went, and anything else is refused at its field', () => {
  expect(decodeCursor(encodeCursor(['2026-11-23T10:30:00.000Z', 7]), ['instant', 'integer'])).toEqual(['2026-11-23T10:30:00.000Z', 7])
  for (const wrong of ['', 'x', encodeCursor([1]), Buffer.from('[1, {}]').toString('base64url'), Buffer.from('{"a":1}').toString('base64url')])
    expect(() => decodeCursor(wrong, ['instant', 'integer'])).toThrow('The page asked for is not one that was offered')
})

test('the clock starts where it is set and runs on', async () => {
  const clock = makeClock(new Date('2031-01-01T00:00:00Z'))
  const first = clock()
  await new Promise((resolve) => setTimeout(resolve, 15))
  expect(first.toISOString()).toMatch(/^2031-01-01T00:00:00/)
  expect(clock().getTime()).toBeGreaterThan(first.getTime())
  expect(Math.abs(makeClock(null)().getTime() - Date.now())).toBeLessThan(1000)
})
