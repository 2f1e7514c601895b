import { event } from '#core/kit'

interface MeterFact {
  meter: string
  unit: string
  value: string
}
const showed = ({ meter, value, unit }: Partial<MeterFact>) => (meter && value ? `${meter}, ${value} ${unit ?? ''}` : '')

/** What can happen to the meters of an asset. */
export const METER_EVENTS = {
  'meter.add': event<{ meter: string }>()({ says: 'gave it a meter:', about: ({ meter }) => meter ?? '', told: null, writes: false }),
  'meter.retire': event<{ meter: string }>()({ says: 'took a meter off it:', about: ({ meter }) => meter ?? '', told: null, writes: false }),
  'meter.read': event<MeterFact & { answer: string }>()({
    says: 'read the meter:',
    about: ({ answer, ...facts }) => `${showed(facts)}${answer === 'exchanged' ? ', on a new counter' : answer === 'rolled' ? ', after it rolled over' : ''}`,
    told: null,
    writes: false,
  }),
  'meter.strike': event<MeterFact>()({ says: 'struck out a reading:', about: showed, told: null, writes: false }),
}
