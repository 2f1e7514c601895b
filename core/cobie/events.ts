import { event } from '#core/kit'

export const COBIE_EVENTS = {
  'cobie.take': event<{ file: string; fresh: number; changed: number; bad: number }>()({
    says: 'took in a COBie workbook:',
    about: ({ file, fresh, changed, bad }) => [file, `${fresh ?? 0} new`, `${changed ?? 0} changed`, bad ? `${bad} left out` : ''].filter(Boolean).join(', '),
    told: null,
    writes: false,
  }),
  'cobie.plan': event<{ plan: string; every: string; fresh: boolean }>()({
    says: 'took in a preventive plan:',
    about: ({ plan, every, fresh }) => `${plan ?? ''}, ${fresh === false ? 'now ' : ''}${every ?? ''}`,
    told: null,
    writes: false,
  }),
}
