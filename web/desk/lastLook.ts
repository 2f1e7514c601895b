import { useLocalStorage } from '@vueuse/core'
import type { Station } from '#core/orders'
import { serverNow, useSession } from '#web/kit'

/** How far back a first look reaches: a day. */
const FIRST_MS = 86_400_000

/** When this person last looked at each station on this device. A look lasts until the station is left. */
export function lastLooks() {
  const session = useSession()
  const looks = useLocalStorage<Partial<Record<Station, string>>>(`evrix-looks-${session.self?.accountId ?? 0}`, {})
  const first = new Date(serverNow().getTime() - FIRST_MS).toISOString()
  return {
    since: (station: Station): string => looks.value[station] ?? first,
    looked: (station: Station): void => void (looks.value = { ...looks.value, [station]: serverNow().toISOString() }),
  }
}
