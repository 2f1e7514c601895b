import { agreeTransfer, giveBackAsset, listTransfers, refuseTransfer, withdrawTransfer } from '#contract/assets'
import type { TransferRow } from '#contract/assets'
import type { TransferMove } from '#core/assets'
import { call, useRead } from '#web/kit'

/** The transfers of an asset, or all from and to one's sites; read again when one of them changes. */
export const useTransfers = (assetId?: () => number) =>
  useRead(listTransfers, () => (assetId ? { assetId: assetId() } : {}), { holds: true, touchedBy: (change) => change.kind.startsWith('asset.') })

/** What each move is called on its button. */
export const MOVE_NAMES: Record<TransferMove, string> = { agree: 'Agree', refuse: 'Refuse', withdraw: 'Withdraw', giveBack: 'It is back' }

/** Makes a move; `said` is the place for agreeing, the reason for refusing. */
export function makeMove(row: TransferRow, move: TransferMove, said: { placeId?: number; reason?: string }): Promise<TransferRow> {
  const { id, version } = row
  if (move === 'agree') return call(agreeTransfer, { id, version, ...(said.placeId ? { placeId: said.placeId } : {}) })
  if (move === 'refuse') return call(refuseTransfer, { id, version, reason: said.reason ?? '' })
  return call(move === 'withdraw' ? withdrawTransfer : giveBackAsset, { id, version })
}
