import { event } from '#core/kit'

type Made = { template: string; batchId: number; orders: number }

/** What happens to templates, and to what was made from one in one act. */
export const TEMPLATE_EVENTS = {
  'template.save': event<{ template: string; fresh: boolean }>()({
    says: 'wrote a template:',
    about: ({ template }) => template ?? '',
    told: null,
    writes: false,
  }),
  'template.make': event<Made>()({
    says: 'made orders from a template:',
    about: ({ template, orders }) => `${template ?? ''}${orders ? `, ${orders}` : ''}`,
    told: null,
    writes: false,
  }),
  'template.takeBack': event<Made & { kept: number }>()({
    says: 'took back what was made from a template:',
    about: ({ template, orders, kept }) => `${template ?? ''}${orders ? `, ${orders}` : ''}${kept ? `; ${kept} were begun and stay` : ''}`,
    told: null,
    writes: false,
  }),
}
