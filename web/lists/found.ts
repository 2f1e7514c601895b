import type { SearchFound, SearchType } from '#contract/lists'
import { addressOf } from '#web/kit'

export const TYPE_NAMES: Record<SearchType, { one: string; many: string }> = {
  order: { one: 'Order', many: 'Orders' },
  request: { one: 'Request', many: 'Requests' },
  conversation: { one: 'Conversation', many: 'Conversations' },
  place: { one: 'Place', many: 'Places' },
  asset: { one: 'Asset', many: 'Assets' },
  person: { one: 'Person', many: 'People' },
  document: { one: 'Document', many: 'Documents' },
}

/** Where something that was found is opened. */
export function addressForFound(one: Pick<SearchFound, 'type' | 'id' | 'title' | 'station' | 'on'>): string {
  if (one.type === 'request' || one.type === 'conversation') return `/desk/${one.station}/request/${one.id}`
  if (one.type === 'order') return `/desk/${one.station}/order/${one.id}`
  if (one.type === 'document')
    return one.on === 'orders' || one.on === 'requests'
      ? one.on === 'orders'
        ? `/desk/planning/order/${one.id}`
        : `/desk/triage/request/${one.id}`
      : addressOf({ register: one.on!, id: one.id })
  return addressOf({ register: ({ place: 'places', asset: 'assets', person: 'people' } as const)[one.type], id: one.id })
}
