import fc from 'fast-check'
import { DateTime } from 'luxon'
import { dayBefore, documentReasons, documentStanding, documentWords, isInForce, MOST_WORDS, remindOn } from '#core/documents'

const at = (validFrom: string | null, validUntil: string | null, remindDays: number | null = null) => ({ validFrom, validUntil, remindDays })

test('a document holds on its first and on its last day, and neither before nor after', () => {
  const document = at('2026-03-01', '2026-08-31')
  expect(['2026-02-28', '2026-03-01', '2026-07-31', '2026-08-31', '2026-09-01'].map((day) => documentStanding(document, day))).toEqual([
    'coming',
    'valid',
    'valid',
    'ending',
    'ended',
  ])
  expect(['2026-02-28', '2026-03-01', '2026-08-31', '2026-09-01'].map((day) => isInForce(document, day))).toEqual([false, true, true, false])
})

test('it ends soon from the day somebody is reminded, or thirty days before where nobody is', () => {
  expect(documentStanding(at(null, '2026-12-31', 10), '2026-12-20')).toBe('valid')
  expect(documentStanding(at(null, '2026-12-31', 10), '2026-12-21')).toBe('ending')
  expect(documentStanding(at(null, '2026-12-31'), '2026-11-30')).toBe('valid')
  expect(documentStanding(at(null, '2026-12-31'), '2026-12-01')).toBe('ending')
  expect(documentStanding(at(null, null), '2026-12-01')).toBe('valid')
})

test('somebody is reminded on a day only of what ends, and only where that is wished', () => {
  expect(remindOn({ validUntil: '2026-03-10', remindDays: 14 })).toBe('2026-02-24')
  expect(remindOn({ validUntil: '2026-03-10', remindDays: 0 })).toBe('2026-03-10')
  expect(remindOn({ validUntil: null, remindDays: 14 })).toBeNull()
  expect(remindOn({ validUntil: '2026-03-10', remindDays: null })).toBeNull()
})

test('days before a day agree with a calendar library, leap years and turns of the year too', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 40_000 }), fc.integer({ min: 0, max: 400 }), (offset, days) => {
      const day = DateTime.utc(1980, 1, 1).plus({ days: offset })
      return dayBefore(day.toISODate()!, days) === day.minus({ days }).toISODate()
    }),
  )
})

test('what ends before it begins, and a reminder of no end, are refused at their field', () => {
  expect(documentReasons(at('2026-02-02', '2026-02-01')).map(({ field }) => field)).toEqual(['validUntil'])
  expect(documentReasons(at('2026-02-02', '2026-02-02'))).toEqual([])
  expect(documentReasons(at(null, null, 30)).map(({ field }) => field)).toEqual(['remindDays'])
  expect(documentReasons(at(null, '2026-02-02', 30))).toEqual([])
})

test('it is found by its title, the name of its file and what is inside, as far as that is kept', () => {
  expect(documentWords('Lift', 'thorough_examination-2026.pdf', ' Ropes\n and  buffers ')).toBe('Lift thorough examination 2026  Ropes and buffers ')
  expect(documentWords('A', 'b.txt', null)).toBe('A b ')
  expect(documentWords('A', 'b.txt', 'x'.repeat(MOST_WORDS * 2))).toHaveLength(MOST_WORDS)
})
