import type { DayPlanMove } from '#contract/dayplans'
import { leavingKey, proposalsOf } from './proposed'

const bram = { id: 1, name: 'Bram' }
const greta = { id: 2, name: 'Greta' }
const at = (hour: string, ...people: { id: number; name: string }[]) => ({
  start: `2026-11-23T${hour}:00:00.000Z`,
  end: `2026-11-23T${hour}:45:00.000Z`,
  people,
})
const move = (n: number, from: DayPlanMove['from'], to: DayPlanMove['to'], taken = false): DayPlanMove => ({
  at: n,
  orderId: 100 + n,
  number: `W-${n}`,
  summary: 'A job',
  placeCode: null,
  priority: 'routine',
  promised: false,
  from,
  to,
  because: [],
  needs: [],
  taken,
})

test('each who would go is drawn where they would, marked where it is ticked; what was made is drawn no more', () => {
  const moves = [move(0, null, at('13', bram, greta)), move(1, at('09', bram), at('14', bram)), move(2, null, at('15', greta), true)]
  const { puts } = proposalsOf(moves, new Set([1]))
  expect(puts.map(({ number, technicianId, from, ticked }) => [number, technicianId, from.slice(11, 16), ticked])).toEqual([
    ['W-0', 1, '13:00', false],
    ['W-0', 2, '13:00', false],
    ['W-1', 1, '14:00', true],
  ])
})

test('what goes from where it is, or is taken back, leaves there and with nobody else', () => {
  const moves = [
    move(0, at('09', bram), at('14', greta)),
    move(1, at('10', greta), null),
    move(2, null, at('15', bram)),
    move(3, at('11', bram), at('12', bram), true),
  ]
  const { puts, leaves } = proposalsOf(moves, new Set())
  expect([...leaves]).toEqual([leavingKey(100, 1), leavingKey(101, 2)])
  expect(leaves.has(leavingKey(100, 2))).toBe(false)
  expect(puts.map(({ number }) => number)).toEqual(['W-0', 'W-2'])
})
