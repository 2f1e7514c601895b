import { endOfStint, isForgotten, refuseAdditions } from '#core/field'
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
