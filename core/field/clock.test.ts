import { endOfStint, isForgotten, refuseAdditions } from '#core/field'
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
