import type { OrderState, OwnMark } from '#core/orders'
import type { World } from './world'

const STATES: [under: OrderState, name: string, mark: OwnMark][] = [
  ['on_hold', 'Waiting for keys', 'ring'],
  ['on_hold', 'Waiting for the tide', 'bars'],
  ['ready', 'Plant must stand still', 'frame'],
  ['done', 'To be looked at', 'diamond'],
]

/** What the station tells apart further; some of what is open stands so. Invented. */
export function makeOwnStates(world: World): void {
  const [site] = world.rows.sites
  const maren = world.rows.accounts.find((row) => row.email.startsWith('maren.quill'))!
  for (const [under, name, mark] of STATES) {
    const made = world.add('ownStates', { siteId: site!.id!, under, name, mark })
    // Those that stood there longest; the first on hold waits for keys, the second for the tide.
    const standing = world.rows.orders.filter((order) => order.state === under && order.siteId === site!.id && !order.discardedAt && !order.ownStateId)
    for (const order of standing.slice(0, 1)) {
      order.ownStateId = made.id
      order.version = (order.version ?? 1) + 1
      const since = world.rows.events.filter((event) => event.orderId === order.id).reduce((latest, event) => Math.max(latest, event.at.getTime()), 0)
      const at = new Date(Math.min(world.now.getTime() - 60_000, since + 20 * 60_000))
      world.add('events', {
        at,
        kind: 'order.ownState',
        siteId: order.siteId,
        orderId: order.id!,
        actorId: maren.id!,
        actorName: 'Maren Quill',
        details: { from: null, to: name },
      })
    }
  }
}
