import { crewSigns, LATE_BEGIN_MINUTES } from '#core/field'

const at = (clock: string) => new Date(`2026-11-23T${clock}:00Z`)
const now = at('12:00')
const says = (running: [string, string] | null, next: string | null, heard: string | null) =>
  crewSigns(
    {
      running: running && { since: at(running[0]), plannedEnd: at(running[1]) },
      next: next ? { plannedStart: at(next) } : null,
      heardAt: heard ? at(heard) : null,
    },
    now,
  ).map(({ kind, says }) => `${kind}: ${says}`)

test('nothing is said of whoever is where they should be', () => {
  expect(says(null, null, null)).toEqual([])
  expect(says(['10:00', '12:30'], '13:00', '11:50')).toEqual([])
  expect(says(null, '11:46', null)).toEqual([])
})

test('whoever works alone and has not checked in comes first', () => {
  const facts = { running: { since: at('10:00'), plannedEnd: at('11:30') }, checkInBy: at('11:50'), next: null, heardAt: at('10:00') }
  expect(crewSigns(facts, now).map(({ says }) => says)).toEqual(['works alone, check-in 10 min overdue', '30 min over'])
  expect(crewSigns({ ...facts, checkInBy: at('11:56') }, now).map(({ kind }) => kind)).toEqual(['over'])
})

test('over what was planned, late to begin, and not heard of for hours', () => {
  expect(says(['10:00', '11:40'], null, '11:00')).toEqual(['over: 20 min over'])
  expect(says(null, '11:45', null)).toEqual(['late: should have begun 15 min ago'])
  expect(LATE_BEGIN_MINUTES).toBe(15)
  expect(says(['08:30', '12:30'], null, '08:45')).toEqual(['silent: not heard of for 3 h 15 min'])
  // What was heard before the clock began says nothing of it.
  expect(says(['11:00', '12:30'], null, '07:00')).toEqual([])
  expect(says(['08:00', '09:00'], '10:00', null)).toEqual(['silent: not heard of for 4 h', 'over: 3 h over', 'late: should have begun 2 h ago'])
})
