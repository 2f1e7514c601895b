import { event } from '#core/kit'

type Called = { title: string; documentId: number }

export const DOCUMENT_EVENTS = {
  'document.add': event<Called>()({ says: 'added a document:', about: ({ title }) => title ?? '', told: null, writes: false }),
  'document.version': event<Called & { number: number }>()({
    says: 'added a newer version:',
    about: ({ title, number }) => `${title ?? ''}${number ? `, version ${number}` : ''}`,
    told: null,
    writes: false,
  }),
  'document.edit': event<Called & { fields: string[] }>()({
    says: 'changed a document:',
    about: ({ title, fields }) => [title, (fields ?? []).join(', ')].filter(Boolean).join(': '),
    told: null,
    writes: false,
  }),
  'document.retire': event<Called>()({ says: 'put a document away:', about: ({ title }) => title ?? '', told: null, writes: false }),
  'document.restore': event<Called>()({ says: 'took a document out again:', about: ({ title }) => title ?? '', told: null, writes: false }),
  'document.ending': event<Called & { until: string; called: string }>()({
    says: 'reminds:',
    about: ({ title, until }) => `${title ?? ''} is valid until ${until ?? ''}`,
    told: null,
    writes: true,
    byClock: true,
  }),
}
