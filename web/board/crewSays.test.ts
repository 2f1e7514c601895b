import type { CrewRow } from '#contract/field'
import { crewSays } from './crewSays'

const row = (changed: Partial<CrewRow>): CrewRow => ({
  ...{ technicianId: 3, personId: 9, name: 'Bram', kind: 'work', since: '09:45', next: null, heardAt: null, signs: [] },
  job: { orderId: 1, number: 'W-1', summary: 'Tap drips', placeCode: null, placeName: null, plannedEnd: '11:00' },
  ...changed,
})
const over = { kind: 'over' as const, minutes: 20, says: '20 min over' }

test('a row says where its person is, and what is worth a look before anything else; vendors have rows of their own', () => {
  const says = crewSays(
    [
      row({}),
      row({ technicianId: 4, signs: [over] }),
      row({ technicianId: 5, job: null, kind: null, since: null, next: { orderId: 2, number: 'W-2', plannedStart: '10:00' } }),
      row({ technicianId: null }),
    ],
    (instant) => instant,
  )
  expect([...says]).toEqual([
    ['t3', 'W-1: work since 09:45'],
    ['t4', 'W-1: 20 min over'],
    ['t5', 'W-2: begins at 10:00'],
  ])
})
