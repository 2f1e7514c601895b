import type { FindingSeverity } from '#core/findings'
import type { Setting } from './simulate'

/** What technicians noticed on their way, on the latest jobs that are over: most of it waits to be decided. Invented. */
const FOUND: { text: string; severity: FindingSeverity; fixedNow?: true; aside?: string }[] = [
  { text: 'Seal of the inspection hatch is cracked, water behind it', severity: 'repair' },
  { text: 'Grating over the sump is loose at the north edge', severity: 'unsafe' },
  { text: 'Label of the isolator cannot be read any more', severity: 'watch', fixedNow: true },
  { text: 'Lamp above the door flickers', severity: 'watch' },
  { text: 'Pipe lagging has come off behind the tank, about two metres', severity: 'repair' },
  { text: 'Cable clip missing, cable hangs across the way', severity: 'repair' },
  { text: 'Rust on the bracket of the fan', severity: 'watch', aside: 'It is replaced with the fan in spring.' },
]
const JOBS = 4

/** Each was found while somebody was there. */
export function makeFindings({ world }: Setting): void {
  const { rows, now } = world
  const nameOf = (accountId: number) => {
    const account = rows.accounts.find(({ id }) => id === accountId)!
    return rows.people.find(({ id }) => id === account.personId)!.name
  }
  const over = rows.visits
    .filter(({ state, technicianId, endedAt }) => state === 'ended' && technicianId && endedAt && endedAt < now)
    .map((visit) => ({ visit, order: rows.orders.find(({ id }) => id === visit.orderId)! }))
    .filter(({ order }) => ['done', 'checked', 'closed'].includes(order.state) && order.siteId === 1 && order.placeId)
    .sort((a, b) => b.visit.endedAt!.getTime() - a.visit.endedAt!.getTime())
    .slice(0, JOBS)
  FOUND.forEach(({ text, severity, fixedNow = false, aside }, index) => {
    const { visit, order } = over[index % over.length]!
    const account = rows.technicians.find(({ id }) => id === visit.technicianId)!.accountId
    const [from, until] = [visit.startedAt!.getTime(), visit.endedAt!.getTime()]
    const at = new Date(from + ((until - from) * (1 + Math.floor(index / over.length))) / 3)
    const place = rows.places.find(({ id }) => id === order.placeId)!
    const [coordinator, decidedAt] = [rows.accounts.find(({ email }) => email === 'maren.quill@skerry.example')!, new Date(now.getTime() - 3 * 3_600_000)]
    const isAside = aside !== undefined && decidedAt > at
    world.add('findings', {
      ...{ siteId: order.siteId, orderId: order.id!, visitId: visit.id!, mark: `demo-finding-${String(index).padStart(4, '0')}` },
      ...{ text, severity, fixedNow, placeId: place.id, foundBy: nameOf(account), at },
      ...(isAside ? { setAsideAt: decidedAt, setAsideBy: nameOf(coordinator.id!), setAsideReason: aside } : {}),
    })
    const details = { text, severity, fixedNow, where: `${place.code} ${place.name}` }
    const of = { siteId: order.siteId, orderId: order.id!, details }
    world.add('events', { ...of, at, kind: 'finding.add', visitId: visit.id!, actorId: account, actorName: nameOf(account) })
    if (isAside)
      world.add('events', { ...of, at: decidedAt, kind: 'finding.aside', reason: aside, actorId: coordinator.id!, actorName: nameOf(coordinator.id!) })
  })
}
