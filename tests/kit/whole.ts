import { readAgreement, readOrder, readOrderTimeline } from '#contract/orders'
import { readConversation, readRequest, readRequestTimeline } from '#contract/requests'
import type { Client } from './client'

/** All that the Sheet of an order shows, of each of its sections. */
export async function orderInFull(who: Client, id: number) {
  const sheet = await who.must(readOrder, { id })
  const { entries: timeline } = await who.must(readOrderTimeline, { id })
  return { ...sheet, ...(await who.must(readAgreement, { id })), timeline }
}

/** All that the Sheet of a request shows, of each of its sections. */
export async function requestInFull(who: Client, id: number) {
  const sheet = await who.must(readRequest, { id })
  const { entries: timeline } = await who.must(readRequestTimeline, { id })
  return { ...sheet, conversation: await who.must(readConversation, { id }), timeline }
}
