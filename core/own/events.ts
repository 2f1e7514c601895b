import { event } from '#core/kit'

/** Values of own fields, as words of that moment: the field may be called otherwise or be gone when they are read. */
export const OWN_EVENTS = {
  'own.edit': event<{ changes: { label: string; from: string; to: string }[] }>()({
    says: 'changed',
    about: ({ changes }) => (changes ?? []).map(({ label, from, to }) => `${label.toLowerCase()} from ${from || 'nothing'} to ${to || 'nothing'}`).join(', '),
    told: null,
    writes: false,
  }),
  'own.field': event<{ label: string; of: string; what: 'added' | 'changed' | 'retired' | 'restored' }>()({
    says: 'changed a field',
    told: null,
    writes: false,
  }),
}
