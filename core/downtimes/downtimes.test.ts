import { DOWNTIME_EVENTS, minutesDown, refuseDowntime } from '#core/downtimes'

const at = (clock: string, day = 23) => new Date(`2026-11-${day}T${clock}:00Z`)
const now = at('12:00')

test('it begins by now, ends after that, and lies over nothing that is written down', () => {
  const say = (from: string, until: string | null, others: [string, string | null][] = []) => () =>
    refuseDowntime({ fromAt: at(from), untilAt: until ? at(until) : null }, others.map(([a, b]) => ({ fromAt: at(a), untilAt: b ? at(b) : null })), now) // prettier-ignore
  expect(say('08:00', null)).not.toThrow()
  expect(say('08:00', '09:00', [['09:00', '10:00'], ['07:00', '08:00']])).not.toThrow() // prettier-ignore
  expect(say('12:02', null)).toThrow('now, or earlier')
  expect(say('09:00', '09:00')).toThrow('It ends after it begins.')
  expect(say('09:00', '12:30')).toThrow('once it is back')
  expect(say('08:00', '09:01', [['09:00', '10:00']])).toThrow('That time is written down already.')
  expect(say('11:00', null, [['09:00', null]])).toThrow('out of use already')
})

test('minutes within a period; what goes on counts until its end', () => {
  const down = [{ fromAt: at('22:00', 22), untilAt: at('00:30') }, { fromAt: at('11:15'), untilAt: null }] // prettier-ignore
  expect(minutesDown(down, at('00:00'), now)).toBe(30 + 45)
  expect(minutesDown(down, at('01:00'), at('02:00'))).toBe(0)
})

test('events say since when, and until when', () => {
  const words = { time: (instant: string) => instant.slice(11, 16), money: String }
  const from = '2026-11-23T08:00:00Z'
  expect(DOWNTIME_EVENTS['downtime.say'].about({ asset: 'CH-1', from, until: null }, words)).toBe('CH-1, since 08:00')
  expect(DOWNTIME_EVENTS['downtime.say'].about({ asset: 'CH-1', from, until: '2026-11-23T09:00:00Z' }, words)).toBe('CH-1, 08:00 to 09:00')
})
