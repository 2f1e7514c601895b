import { dayFrom } from './register'
import type { Setting } from './simulate'

/** Equipment that is with somebody, booked, late or back; where it is kept, and until when it is inspected. */
export function makeBookings({ world, spaces, staff }: Setting): void {
  const { rows, now } = world
  const maren = staff.get('Maren Quill')!
  const at = (hours: number) => new Date(now.getTime() + hours * 3_600_000)
  const piece = (tag: string) => rows.equipment.find((one) => one.tag === tag)!
  const store = spaces.find((space) => space.building === 'PUM' && space.kind === 'Store')!.id
  for (const [tag, days] of [
    ['EQ-1', 90],
    ['EQ-2', 9],
    ['EQ-3', null],
    ['EQ-4', -3],
  ] as const)
    Object.assign(piece(tag), { placeId: store, inspectedUntil: days === null ? null : dayFrom(now, days) })
  const orders = (state: string) => rows.orders.filter((order) => order.siteId === 1 && order.state === state && !order.discardedAt)
  const book = (tag: string, order: (typeof rows.orders)[number] | undefined, from: number, until: number, more: object = {}) =>
    order &&
    world.add('bookings', {
      siteId: 1,
      equipmentId: piece(tag).id!,
      orderId: order.id!,
      fromAt: at(from),
      untilAt: at(until),
      state: 'booked',
      toldLate: false,
      ...more,
    })
  const out = (hours: number, outTo: string) => ({ state: 'out', outAt: at(hours), outBy: maren, outTo })
  const [first, second] = orders('on_job')
  const [third, fourth] = orders('dispatched')
  book('EQ-1', first, -26, 30, out(-26, 'Bram Oyelaran'))
  book('EQ-3', second, -50, -20, { ...out(-50, 'Fintan Rosewarne'), toldLate: true })
  book('EQ-2', third, 46, 55)
  book('EQ-1', fourth, 70, 120)
  book('EQ-4', orders('closed').at(-1), -190, -140, {
    state: 'back',
    outAt: at(-190),
    outBy: maren,
    outTo: 'Bram Oyelaran',
    backAt: at(-142),
    note: 'Its filter wants changing soon',
  })
}

/** How some spaces stand, as it was said on the last walk. */
export function makeReadiness({ world, spaces }: Setting): void {
  const at = (hours: number) => new Date(world.now.getTime() + hours * 3_600_000)
  for (const [code, state, hours, byName, note] of [
    ['GAN-101', 'ready', -20, 'Tobias Achterberg', null],
    ['GAN-102', 'needs_cleaning', -3, 'Bram Oyelaran', 'Plaster dust after the socket was renewed'],
    ['GAN-103', 'out_of_use', -44, 'Tobias Achterberg', 'Shower tray cracked, waiting for a new one'],
    ['GAN-104', 'ready', -20, 'Tobias Achterberg', null],
    ['GAN-201', 'ready', -19, 'Tobias Achterberg', null],
    ['GAN-202', 'needs_cleaning', -19, 'Tobias Achterberg', null],
  ] as const) {
    const space = spaces.find((one) => one.code === code)
    if (space) world.add('spaceReadiness', { placeId: space.id, state, note, at: at(hours), byName, orderId: null })
  }
}
