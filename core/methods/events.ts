import { event } from '#core/kit'

/** What can happen to a method, and to what is planned of an order. */
export const METHOD_EVENTS = {
  'method.edition': event<{ called: string; edition: number; note: string }>()({
    says: 'wrote it anew',
    about: ({ edition, note }) => [edition ? `version ${edition}` : '', note].filter(Boolean).join(': '),
    told: null,
    writes: false,
  }),
  'plan.apply': event<{ methods: string }>()({ says: 'planned it by', about: ({ methods }) => methods ?? '', told: null, writes: false }),
  'plan.takeOff': event<{ method: string }>()({ says: 'took a method off:', about: ({ method }) => method ?? '', told: null, writes: false }),
  'plan.change': event<{ what: string }>()({ says: 'changed the plan:', about: ({ what }) => what ?? '', told: null, writes: false }),
  'step.give': event<{ step: string; stepId: number; toId: number; to: string }>()({
    says: 'gave a step',
    about: ({ to, step }) => `to ${to ?? 'somebody'}: ${step ?? ''}`,
    told: null,
    writes: true,
  }),
  'step.do': event<{ step: string; stepId: number; value: string | null; outside: boolean; left: boolean }>()({
    says: 'did a step:',
    about: ({ step, value, outside, left }) => `${step ?? ''}${value ? `, ${value}` : ''}${outside ? ', outside its limits' : ''}${left ? ', left out' : ''}`,
    told: null,
    writes: true,
  }),
  'step.undo': event<{ step: string; stepId: number }>()({ says: 'took a step back:', about: ({ step }) => step ?? '', told: null, writes: false }),
}
