import { checkInBy, isAlone, isOverdue } from '#core/field'
import { STINT_KINDS } from '#core/ledger'

const at = (clock: string) => new Date(`2026-11-23T${clock}Z`)

test('somebody is alone while they work or wait, not on the way or on a break', () => {
  expect(STINT_KINDS.filter(isAlone)).toEqual(['work', 'waiting'])
})

test('the desk hears of it five minutes after the check-in was due', () => {
  const due = checkInBy(at('10:00:00'), 30)
  expect(due).toEqual(at('10:30:00'))
  expect([isOverdue(due, at('10:30:00')), isOverdue(due, at('10:34:59')), isOverdue(due, at('10:35:00'))]).toEqual([false, false, true])
})
