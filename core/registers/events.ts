import { event } from '#core/kit'
import type { ChangedFields } from '#core/kit'

interface Subject {
  /** Code and name of the record as it was called then. */
  called: string
}

/** What can happen to a record of a register; which one it is stands beside the event. */
export const REGISTER_EVENTS = {
  'register.add': event<Subject>()({ says: 'entered it', told: null, writes: false }),
  'register.edit': event<Subject & { fields: ChangedFields }>()({ says: 'changed', told: null, writes: false }),
  'register.move': event<Subject & { from: string | null; to: string | null; with: number }>()({
    says: 'moved it',
    about: ({ from, to, with: others }) => `${from ? `from ${from} ` : ''}to ${to ?? 'the top'}${others ? `, with ${others} below it` : ''}`,
    told: null,
    writes: false,
  }),
  'register.retire': event<Subject & { successor: string | null }>()({
    says: 'retired it',
    about: ({ successor }) => (successor ? `replaced by ${successor}` : ''),
    told: null,
    writes: false,
  }),
  'register.restore': event<Subject>()({ says: 'took it into use again', told: null, writes: false }),
  /** What is kept beside its fields: contacts, trades, sites. */
  'register.beside': event<{ what: string }>()({ says: 'changed', about: ({ what }) => what ?? '', told: null, writes: false }),
}
