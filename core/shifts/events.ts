import { event } from '#core/kit'

interface Asked {
  askId: number
  /** Who asked. */
  technicianId: number
  name: string
  from: string
  until: string
}
const span = ({ from, until }: Partial<Asked>) => (from && until ? (from === until ? from : `${from} to ${until}`) : '')

/** Leave asked for, and who is on call. */
export const SHIFT_EVENTS = {
  'leave.ask': event<Asked>()({ says: 'asked for leave:', about: span, told: null, writes: true }),
  'leave.agree': event<Asked>()({ says: 'agreed to the leave:', about: span, told: null, writes: true, forTechnician: true }),
  'leave.refuse': event<Asked>()({ says: 'refused the leave:', about: span, told: null, writes: true, forTechnician: true }),
  'leave.withdraw': event<Asked>()({ says: 'does not want the leave any more:', about: span, told: null, writes: false }),
  'rota.keep': event<{ what: string }>()({ says: 'changed who is on call:', about: ({ what }) => what ?? '', told: null, writes: false }),
}
