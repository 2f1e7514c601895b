import { event } from '#core/kit'

type Booked = { equipment: string; equipmentId: number }

/** What happens to equipment that is lent to jobs, told on the timeline of the order and of the equipment. */
export const BOOKING_EVENTS = {
  'booking.make': event<Booked & { from: string; until: string }>()({
    says: 'booked equipment:',
    about: ({ equipment, from, until }, words) => `${equipment ?? ''}${from && until ? `, ${words.time(from)} to ${words.time(until)}` : ''}`,
    told: null,
    writes: false,
  }),
  'booking.move': event<Booked & { from: string; until: string }>()({
    says: 'booked it for another time:',
    about: ({ equipment, from, until }, words) => `${equipment ?? ''}${from && until ? `, ${words.time(from)} to ${words.time(until)}` : ''}`,
    told: null,
    writes: false,
  }),
  'booking.cancel': event<Booked>()({ says: 'gave up a booking:', about: ({ equipment }) => equipment ?? '', told: null, writes: false }),
  'booking.handOut': event<Booked & { to: string }>()({
    says: 'handed out equipment:',
    about: ({ equipment, to }) => `${equipment ?? ''}${to ? ` to ${to}` : ''}`,
    told: null,
    writes: false,
  }),
  'booking.giveBack': event<Booked>()({ says: 'took equipment back:', about: ({ equipment }) => equipment ?? '', told: null, writes: false }),
  'booking.late': event<Booked & { bookingId: number; has: string; until: string }>()({
    says: 'misses equipment:',
    about: ({ equipment, has }) => `${equipment ?? ''} should be back${has ? `; ${has} has it` : ''}`,
    told: null,
    writes: true,
    byClock: true,
  }),
}
