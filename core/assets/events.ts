import { event } from '#core/kit'

interface Transfer {
  asset: string
  from: string
  to: string
  transferId: number
}
const way = ({ from, to }: Partial<Transfer>) => `from ${from} to ${to}`

/** What can happen to assets besides what can happen to every record. */
export const ASSET_EVENTS = {
  'asset.ask': event<Transfer & { kind: string; returnBy: string | null }>()({
    says: 'asked for it to go',
    about: ({ returnBy, ...facts }) => `${way(facts)}${returnBy ? `, on loan until ${returnBy}` : ''}`,
    told: null,
    writes: true,
  }),
  'asset.agree': event<Transfer>()({ says: 'agreed, and it went', about: way, told: null, writes: true }),
  'asset.refuse': event<Transfer>()({ says: 'refused that it goes', about: way, told: null, writes: true }),
  'asset.withdraw': event<Transfer>()({ says: 'withdrew that it goes', about: way, told: null, writes: false }),
  'asset.giveBack': event<Transfer>()({ says: 'gave it back', about: ({ from }) => `to ${from}`, told: null, writes: true }),
}
