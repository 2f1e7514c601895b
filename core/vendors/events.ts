import { event } from '#core/kit'

interface Answered {
  visitId: number
  vendorId: number
}
interface Proposed extends Answered {
  start: string
  end: string
}

/** What vendors say to being sent, and that they say nothing. */
export const VENDOR_EVENTS = {
  'vendor.accept': event<Answered>()({ says: 'accepted to come', told: null, writes: true }),
  'vendor.propose': event<Proposed>()({
    says: 'proposed another time:',
    about: ({ start, end }, words) => (start && end ? `${words.time(start)} to ${words.time(end)}` : ''),
    told: null,
    writes: true,
  }),
  'vendor.decline': event<Answered>()({ says: 'declined to come', told: null, writes: true }),
  'vendor.part': event<{ name: string; quantity: string; unit: string }>()({
    says: 'brought',
    about: ({ name, quantity, unit }) => [quantity, unit, name].filter(Boolean).join(' '),
    told: null,
    writes: false,
  }),
  'vendor.dropPart': event<{ name: string; quantity: string; unit: string }>()({
    says: 'took out what was not brought:',
    about: ({ name, quantity, unit }) => [quantity, unit, name].filter(Boolean).join(' '),
    told: null,
    writes: false,
  }),
  'vendor.file': event<{ name: string }>()({ says: 'added a paper:', about: ({ name }) => name ?? '', told: null, writes: false }),
  'vendor.renew': event<Answered>()({ says: 'asked for a new link', told: null, writes: true }),
  'vendor.keepTime': event<Answered>()({ says: 'kept to the time planned', told: null, writes: true }),
  'vendor.remind': event<Answered & { vendor: string }>()({
    says: 'reminded',
    about: ({ vendor }) => `${vendor ?? 'the vendor'}, who has not answered`,
    told: null,
    writes: true,
    byClock: true,
  }),
  'vendor.silent': event<Answered & { vendor: string }>()({
    says: 'told the desk:',
    about: ({ vendor }) => `no answer from ${vendor ?? 'the vendor'}`,
    told: null,
    writes: true,
    byClock: true,
  }),
}
