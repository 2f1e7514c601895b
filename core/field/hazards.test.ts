import { hazardsAsRead, permitsMissing, refuseUnsafe } from '#core/field'
import type { PermitHeld } from '#core/field'

const at = (clock: string) => new Date(`2026-11-23T${clock}:00Z`)
const fan = { hazard: 'Turning fan', control: 'Isolate', permit: 'isolation' as const }
const water = { hazard: 'Hot water', control: 'Let it cool', permit: null }
const held = (from: string, until: string, kind: PermitHeld['kind'] = 'isolation'): PermitHeld => ({
  kind,
  number: 'P-1',
  fromAt: at(from),
  untilAt: at(until),
})
const both = [fan, water]

test('work waits until the hazards were read and the permits are there; other time does not', () => {
  const begin = (kind: 'work' | 'travel', read: string | null, permits: PermitHeld[]) => () => refuseUnsafe(kind, both, read, permits, at('10:00'))
  expect(begin('work', null, [])).toThrow('Read the hazards')
  expect(begin('work', hazardsAsRead([fan]), [held('09:00', '12:00')])).toThrow('Read the hazards')
  expect(begin('work', hazardsAsRead(both), [])).toThrow('takes a permit: electrical isolation')
  expect(begin('work', hazardsAsRead(both), [held('09:00', '12:00')])).not.toThrow()
  expect(begin('travel', null, [])).not.toThrow()
  expect(() => refuseUnsafe('work', [], null, [], at('10:00'))).not.toThrow()
  expect(() => refuseUnsafe('work', [water], hazardsAsRead([water]), [], at('10:00'))).not.toThrow()
})

test('a permit holds from its first minute to before its last, for its own kind', () => {
  const missing = (permit: PermitHeld) => permitsMissing([fan], [permit], at('10:00'))
  expect([missing(held('10:00', '11:00')), missing(held('09:00', '10:00')), missing(held('10:01', '11:00'))]).toEqual([[], ['isolation'], ['isolation']])
  expect(missing(held('09:00', '11:00', 'height'))).toEqual(['isolation'])
  expect(permitsMissing([fan, { ...fan, hazard: 'Belt' }, { ...water, permit: 'height' }], [], at('10:00'))).toEqual(['isolation', 'height'])
})

test('hazards that are worded anew are others; a line of earlier days without a permit is the same', () => {
  expect(hazardsAsRead([{ ...fan, control: 'Isolate and lock' }])).not.toBe(hazardsAsRead([fan]))
  expect(hazardsAsRead([{ hazard: 'Hot water', control: 'Let it cool' } as typeof water])).toBe(hazardsAsRead([water]))
})
