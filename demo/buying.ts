import { formatNumber } from '#core/kit'
import type { Setting } from './simulate'
import { dayFrom } from './register'

/** Of whom which parts are usually bought, by what their codes begin with, and in how many days they come. */
const SELLERS: [prefix: string, vendor: string, days: number][] = [
  ['EL', 'Ohm and Sons', 3],
  ['HV', 'Ohm and Sons', 6],
  ['PL', 'Northbay Cooling', 4],
  ['LS', 'Northbay Cooling', 14],
  ['DR', 'Ohm and Sons', 10],
]
/** Parts that ran low, and to how many. */
const LOW: [code: string, left: number][] = [
  ['PL-303', 1],
  ['DR-501', 0],
  ['LS-402', 1],
]

/** Stock that ran low, and purchases at every stage. */
export function makeBuying({ world, staff, numbers }: Setting): void {
  const { rows, now } = world
  const maren = staff.get('Maren Quill')!
  const { id: storeId } = rows.stores.find((one) => one.name === 'Main store')!
  const at = (days: number) => new Date(now.getTime() + days * 86_400_000)
  const vendorId = (name: string) => rows.vendors.find((one) => one.name === name)!.id!
  const part = (code: string) => rows.parts.find((one) => one.code === code)!
  const level = (code: string) => rows.stockLevels.find((one) => one.partId === part(code).id)!
  for (const row of rows.parts) {
    const seller = SELLERS.find(([prefix]) => row.code.startsWith(prefix))
    if (seller) Object.assign(row, { vendorId: vendorId(seller[1]), leadDays: seller[2] })
  }
  for (const [code, left] of LOW) {
    const row = level(code)
    const gone = Number(row.quantity) - left
    world.add('stockMovements', {
      storeId: storeId!,
      partId: part(code).id!,
      kind: 'correction',
      quantity: `-${gone}`,
      unitCostMinor: row.averageCostMinor,
      at: at(-9),
      by: maren,
      reason: 'Count: the shelf by the door was nearly empty',
    })
    row.quantity = String(left)
  }

  const purchase = (vendor: string, more: object, lines: [code: string, quantity: string, received: string][]) => {
    const made = world.add('purchases', {
      siteId: 1,
      number: formatNumber('P', numbers.purchase++),
      vendorId: vendorId(vendor),
      storeId: storeId!,
      askedBy: maren,
      askedAt: at(-1),
      state: 'asked',
      ...more,
    })
    for (const [code, quantity, received] of lines) {
      const price = level(code).averageCostMinor
      const line = world.add('purchaseLines', { purchaseId: made.id, partId: part(code).id!, quantity, priceMinor: price, received })
      if (Number(received))
        world.add('stockMovements', {
          storeId: storeId!,
          partId: part(code).id!,
          kind: 'receipt',
          quantity: received,
          unitCostMinor: price,
          purchaseLineId: line.id,
          at: at(-3),
          by: maren,
        })
      level(code).quantity = String(Number(level(code).quantity) + Number(received))
    }
  }
  const ordered = { askedAt: at(-12), orderedAt: at(-11), orderedBy: maren }
  purchase('Northbay Cooling', { ...ordered, state: 'received', billNumber: 'GPM-20911', billedOn: dayFrom(now, -2), billMinor: 11_800 }, [
    ['PL-301', '8', '8'],
    ['PL-302', '4', '4'],
  ])
  purchase('Ohm and Sons', { ...ordered, state: 'received' }, [['EL-102', '24', '24']])
  purchase('Northbay Cooling', { ...ordered, state: 'ordered', expectedOn: dayFrom(now, 3), note: 'Please deliver to the quay door before noon.' }, [
    ['LS-402', '6', '2'],
    ['LS-401', '4', '0'],
  ])
  purchase('Ohm and Sons', {}, [['EL-104', '5', '0']])
}
