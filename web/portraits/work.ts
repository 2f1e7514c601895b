import { readPortraitWork } from '#contract/portraits'
import { isChange } from '#core/events'
import { useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import type { AnyRecord } from '#contract/portraits'

/** The work on the open Portrait: read once for all sections that show some of it. */
export function usePortraitWork() {
  const { sheet } = useOpenSheet<AnyRecord>()
  return useRead(readPortraitWork, () => ({ register: sheet.value.register, id: sheet.value.id }), {
    holds: true,
    touchedBy: (change) => isChange(change.kind) && (change.orderId !== null || change.requestId !== null),
  })
}
