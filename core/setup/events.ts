import { event } from '#core/kit'
import type { ChangedFields } from '#core/kit'

interface Changed {
  fields: ChangedFields
}

/** What administrators change; nobody's timeline shows it, the record keeps it. */
export const SETUP_EVENTS = {
  'setup.account': event<Changed & { accountId: number }>()({ says: 'changed an account', told: null, writes: true, changesWho: true }),
  'setup.apiKey': event<{ name: string; revoked: boolean }>()({ says: 'changed a key', told: null, writes: false }),
  'setup.calendar': event<Changed>()({ says: 'changed working hours', told: null, writes: false }),
  'setup.category': event<{ code: string; retired: boolean }>()({ says: 'changed a category', told: null, writes: false }),
  'setup.consent': event<Changed & { payer: string }>()({ says: 'changed who consents for a payer', told: null, writes: false }),
  'setup.handOver': event<{ from: number; to: number }>()({ says: 'handed decisions over', told: null, writes: false }),
  'setup.hold': event<Changed>()({ says: 'changed what stops the clock', told: null, writes: false }),
  'setup.intake': event<{ from: unknown; to: unknown; copiedFrom: string }>()({ says: 'changed what the Counter asks', told: null, writes: false }),
  'setup.numbering': event<Changed>()({ says: 'changed numbers', told: null, writes: false }),
  'setup.promise': event<{ category: string; priority: string; clock: string; responseMinutes: number; completionMinutes: number; dropped: object }>()({
    says: 'changed the promise of a category',
    told: null,
    writes: false,
  }),
  'setup.rules': event<Changed>()({ says: 'changed the rules', told: null, writes: false }),
  'setup.table': event<{ what: string; file: string; fresh: number; changed: number; bad: number }>()({ says: 'took a table', told: null, writes: false }),
  'setup.target': event<Changed>()({ says: 'changed a promise', told: null, writes: false }),
  'setup.wording': event<{ occasion: string; usual: boolean }>()({ says: 'changed the words of a mail', told: null, writes: false }),
}
