import { correctedStint, endOfStint, isForgotten, refuseAdditions } from '#core/field'
import type { Refusal } from '#core/kit'
import { chargedMinutes } from '#core/ledger'

const at = (text: string) => new Date(`2026-11-${text}:00Z`)

test('a stint ends now, and never before it began', () => {
  expect(endOfStint(at('23T10:00'), at('23T11:00'), null)).toEqual(at('23T11:00'))
  // The clock of the machine was set back an hour.
  expect(chargedMinutes(at('23T10:00'), endOfStint(at('23T10:00'), at('23T09:00'), null), 15)).toBe(0)
})

test('a forgotten clock is charged only as far as somebody says', () => {
  expect([isForgotten(at('23T10:00'), at('24T00:00')), isForgotten(at('23T10:00'), at('24T00:01'))]).toEqual([false, true])
  expect(() => endOfStint(at('01T10:00'), at('23T10:00'), null)).toThrow('more than fourteen hours')
  expect(endOfStint(at('01T10:00'), at('23T10:00'), at('01T12:30'))).toEqual(at('01T12:30'))
  for (const wrong of ['01T09:59', '23T10:01', '02T00:01']) expect(() => endOfStint(at('01T10:00'), at('23T10:00'), at(wrong))).toThrow('when you stopped')
})

describe('own time put right', () => {
  const zone = 'Europe/Dublin'
  const mine = { startAt: at('23T09:00'), endAt: at('23T10:00'), orderState: 'on_job' as const }
  const right = (
    from: string,
    to: string,
    more: Partial<Parameters<typeof correctedStint>[0]> = {},
    others: Parameters<typeof correctedStint>[2] = [],
    now = '23T12:00',
  ) => correctedStint({ ...mine, ...more }, { startAt: at(from), endAt: at(to) }, others, at(now), zone)

  test('to any time of that day that is over, and begun the evening before', () => {
    expect(() => right('23T08:15', '23T11:59')).not.toThrow()
    expect(() => right('22T23:30', '23T01:00', { startAt: at('22T23:00'), endAt: at('23T02:00') })).not.toThrow()
    expect(() => right('23T08:15', '23T12:01')).toThrow('still to come')
    expect(() => right('23T10:00', '23T10:00')).toThrow('ends after it began')
    expect(() => right('22T21:59', '23T12:00')).toThrow('fourteen hours')
  })

  test('not while it runs, not on another day at the site, not once the work was checked', () => {
    expect(() => right('23T09:00', '23T09:30', { endAt: null })).toThrow('Stop it first')
    expect(() => right('23T09:00', '23T09:30', {}, [], '24T00:00')).toThrow('same day')
    // An hour ahead of UTC in summer: at 23:30 UTC the next day has begun there.
    const july = (text: string) => new Date(`2026-07-${text}:00Z`)
    const late = { startAt: july('06T20:00'), endAt: july('06T22:00'), orderState: 'done' as const }
    const correct = (now: string) => correctedStint(late, { startAt: july('06T20:30'), endAt: july('06T22:00') }, [], july(now), zone)
    expect(() => correct('06T22:59')).not.toThrow()
    expect(() => correct('06T23:00')).toThrow('same day')
    for (const orderState of ['checked', 'closed', 'cancelled'] as const) expect(() => right('23T09:00', '23T09:30', { orderState })).toThrow('checked already')
  })

  test('never over other time of theirs; what only meets it is none', () => {
    const other = { startAt: at('23T10:30'), endAt: at('23T11:00'), number: 'W-2' }
    expect(() => right('23T09:00', '23T10:30', {}, [other])).not.toThrow()
    expect(() => right('23T09:00', '23T10:31', {}, [other])).toThrow('You were on W-2 from 10:30 to 11:00.')
    expect(() => right('23T11:00', '23T11:30', {}, [other])).not.toThrow()
    expect(() => right('23T11:00', '23T11:30', {}, [{ ...other, endAt: null }])).toThrow('from 10:30 to now')
  })
})

test('what is over takes no more notes', () => {
  for (const state of ['closed', 'cancelled'] as const) expect(() => refuseAdditions(state)).toThrow('nothing is added')
  for (const state of ['on_job', 'done', 'checked'] as const) expect(() => refuseAdditions(state)).not.toThrow()
})

test('each refusal is told apart, and stands at its field', () => {
  const refused = (work: () => unknown) => {
    try {
      work()
    } catch (error) {
      return (error as Refusal).reasons.map(({ code, field }) => [code, field])
    }
    return null
  }
  const [start, now] = [at('01T10:00'), at('23T10:00')]
  expect(refused(() => endOfStint(start, now, at('01T09:59')))).toEqual([['stopped_before', 'stoppedAt']])
  expect(refused(() => endOfStint(start, now, at('23T10:01')))).toEqual([['stopped_later', 'stoppedAt']])
  expect(refused(() => endOfStint(start, now, at('02T00:01')))).toEqual([['stint_too_long', 'stoppedAt']])
  expect(refused(() => endOfStint(start, now, null))).toEqual([['clock_forgotten', 'stoppedAt']])
  for (const state of ['closed', 'cancelled'] as const) expect(refused(() => refuseAdditions(state))).toEqual([['order_over', undefined]])
  // Started and stopped at one instant, stopped this instant, and fourteen hours to the minute are all possible.
  expect(refused(() => endOfStint(start, now, start))).toBeNull()
  expect(refused(() => endOfStint(at('23T09:00'), now, now))).toBeNull()
  expect(refused(() => endOfStint(start, now, at('02T00:00')))).toBeNull()
})
