import type { TransferRow } from '#contract/assets'
import type { Outgoing, Tell } from '#server/kit'

type Kind = 'asset.ask' | 'asset.agree' | 'asset.refuse' | 'asset.withdraw' | 'asset.giveBack'

/** Tells of a transfer on the timeline of its asset, at the site it goes to: there it is decided. */
export const tellOfTransfer = (tell: Tell, kind: Kind, row: Outgoing<TransferRow>, reason: string | null, more: object = {}): Promise<void> =>
  tell({
    kind,
    siteId: row.to.siteId,
    register: 'assets',
    recordId: row.asset.id,
    reason,
    details: {
      asset: `${row.asset.tag} ${row.asset.name}`,
      from: `${row.from.place}, ${row.from.site}`,
      to: [row.to.place, row.to.site].filter(Boolean).join(', '),
      transferId: row.id,
      ...more,
    },
  })
