import fc from 'fast-check'
import type { WorkCalendar } from '#core/kit'
import { resumeTarget, setTarget, standingAt, stopTarget, targetState } from '#core/orders'

const calendar: WorkCalendar = {
  zone: 'Europe/Dublin',
  week: Array.from({ length: 7 }, (_, day) => (day < 5 ? [{ from: '08:00', to: '16:00' }] : [])),
  holidays: [],
}
const at = (iso: string) => new Date(iso)
const rule = { clock: 'working' as const, responseMinutes: 60, completionMinutes: 480 }

describe('targets', () => {
  test('a working promise made on Monday noon ends on Tuesday noon', () => {
    const target = setTarget(rule, at('2026-11-23T12:00:00Z'), calendar)
    expect(target.responseDueAt).toEqual(at('2026-11-23T13:00:00Z'))
    expect(target.completionDueAt).toEqual(at('2026-11-24T12:00:00Z'))
    expect(target.closeAt).toEqual(at('2026-11-24T10:00:00Z'))
  })

  test('a continuous promise runs through the night', () => {
    expect(setTarget({ ...rule, clock: 'continuous' }, at('2026-11-23T12:00:00Z'), calendar).completionDueAt).toEqual(at('2026-11-23T20:00:00Z'))
  })

  test('used share, what is left and when it will be missed', () => {
    const target = setTarget(rule, at('2026-11-23T08:00:00Z'), calendar)
    const state = targetState(target, null, at('2026-11-23T14:00:00Z'), calendar)
    expect(state).toMatchObject({ standing: 'close', usedShare: 0.75, responseShare: 0.125, remainingMinutes: 120, missedAt: at('2026-11-23T16:00:00Z') })
    expect(targetState(target, null, at('2026-11-24T09:00:00Z'), calendar)).toMatchObject({ standing: 'past', remainingMinutes: -60, missedAt: null })
    expect(targetState(target, at('2026-11-23T09:00:00Z'), at('2026-12-24T09:00:00Z'), calendar)).toMatchObject({ standing: 'on_time', usedShare: 0.125 })
  })

  test('exactly on the target is not past it', () => {
    const target = setTarget(rule, at('2026-11-23T08:00:00Z'), calendar)
    expect(standingAt(target, target.completionDueAt)).toBe('close')
    expect(standingAt(target, new Date(target.completionDueAt.getTime() + 1))).toBe('past')
  })

  test('a clock that stops at the very instant something is due leaves it where it was', () => {
    const target = setTarget({ ...rule, clock: 'continuous' }, at('2026-11-23T08:00:00Z'), calendar)
    const resumed = resumeTarget(stopTarget(target, target.completionDueAt), at('2026-12-01T08:00:00Z'), calendar)
    expect([resumed.completionDueAt, resumed.stoppedAt]).toEqual([target.completionDueAt, null])
    expect(resumeTarget(target, at('2026-12-01T08:00:00Z'), calendar)).toBe(target)
    const before = new Date(target.responseDueAt.getTime() - 60_000)
    const late = resumeTarget(stopTarget(target, before), new Date(before.getTime() + 3_600_000), calendar)
    expect(late.responseDueAt.getTime() - target.responseDueAt.getTime()).toBe(3_600_000)
    expect(stopTarget(stopTarget(target, before), at('2026-12-01T08:00:00Z')).stoppedAt).toEqual(before)
  })

  test('exactly where it becomes close it is close, a moment before it is on time', () => {
    const target = setTarget(rule, at('2026-11-23T08:00:00Z'), calendar)
    expect(standingAt(target, target.closeAt)).toBe('close')
    expect(standingAt(target, new Date(target.closeAt.getTime() - 1))).toBe('on_time')
  })

  test('a hold takes nothing from what was left, whenever it begins and ends', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('working' as const, 'continuous' as const),
        fc.integer({ min: 0, max: 6000 }),
        fc.integer({ min: 0, max: 20_000 }),
        (clock, before, held) => {
          const start = at('2026-11-23T08:00:00Z')
          const target = setTarget({ ...rule, clock }, start, calendar)
          const stop = new Date(start.getTime() + before * 60_000)
          const go = new Date(stop.getTime() + held * 60_000)
          const left = targetState(target, null, stop, calendar).remainingMinutes
          const stopped = stopTarget(target, stop)
          expect(targetState(stopped, null, go, calendar).remainingMinutes).toBe(left)
          const resumed = resumeTarget(stopped, go, calendar)
          // What was past when it stopped stays past; what was left is left.
          if (left > 0) expect(targetState(resumed, null, go, calendar).remainingMinutes).toBe(left)
          else expect(resumed.completionDueAt).toEqual(target.completionDueAt)
        },
      ),
    )
  })
})
