import type { Setting } from './simulate'

/** What was said on jobs that are under way. Invented. */
const SAID: [speaker: 'desk' | 'crew', text: string, minutesIn: number][] = [
  ['desk', 'The caretaker has the key to the plant room; she is there until four.', 1],
  ['crew', 'Got it. I need the long ladder from the boat shed, ten more minutes.', 4],
]

/** A few words on the latest job that somebody is on. */
export function makeTalk({ world, staff }: Setting): void {
  const { rows, now } = world
  const visit = [...rows.visits].reverse().find(({ state, technicianId }) => state === 'on_site' && technicianId)
  if (!visit) return
  const { accountId } = rows.technicians.find(({ id }) => id === visit.technicianId)!
  const account = rows.accounts.find(({ id }) => id === accountId)!
  const crew = { accountId, authorName: rows.people.find(({ id }) => id === account.personId)!.name }
  const desk = { accountId: staff.get('Maren Quill')!, authorName: 'Maren Quill' }
  const order = rows.orders.find(({ id }) => id === visit.orderId)!
  SAID.forEach(([speaker, text, minutesIn], index) => {
    const at = new Date(visit.startedAt!.getTime() + minutesIn * 60_000)
    if (at > now) return
    const who = speaker === 'desk' ? desk : crew
    const visitId = speaker === 'desk' ? null : visit.id!
    const said = { orderId: order.id!, visitId, mark: `demo-message-${String(index).padStart(6, '0')}`, speaker, audience: 'ours' as const, text, at, ...who }
    const { id: messageId } = world.add('orderMessages', said)
    world.add('events', {
      siteId: order.siteId,
      orderId: order.id!,
      visitId,
      kind: 'talk.say',
      reason: text,
      at,
      actorId: who.accountId,
      actorName: who.authorName,
      details: { messageId, speaker, audience: 'ours', visitId },
    })
  })
}
