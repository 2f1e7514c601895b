import { formatNumber } from '#core/kit'
import type { Setting } from './simulate'
import { dayFrom } from './register'

/** Of whom which parts are usually bought, by what their codes begin with, and in how many days they come. */
const SELLERS: [prefix: string, vendor: string, days: number][] = [
  ['EL', 'Meridian Electrical Factors', 3],
  ['HV', 'Meridian Electrical Factors', 6],
  ['PL', 'Gannet Plumbing Merchants', 4],
  ['LS', 'Gannet Plumbing Merchants', 14],
  ['DR', 'Meridian Electrical Factors', 10],
]
/** Parts that ran low, and to how many. */
const LOW: [code: string, left: number][] = [
  ['PL-303', 1],
  ['DR-501', 0],
  ['LS-402', 1],
]

/** Vendors of parts, stock that ran low, and purchases at every stage. */
export function makeBuying({ world, staff, numbers }: Setting): void {
  const { rows, now } = world
  const maren = staff.get('Maren Quill')!
  const { id: storeId } = rows.stores.find((one) => one.name === 'Main store')!
  const at = (days: number) => new Date(now.getTime() + days * 86_400_000)
  for (const [name, email] of [
    ['Meridian Electrical Factors', 'trade@meridian-factors.example'],
    ['Gannet Plumbing Merchants', 'counter@gannet-merchants.example'],
  ] as const)
    world.add('vendors', { name, email, service: 'Parts', contactName: null })
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
      const line = world.add('purchaseLines', { purchaseId: made.id!, partId: part(code).id!, quantity, priceMinor: price, received })
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
  purchase('Gannet Plumbing Merchants', { ...ordered, state: 'received', billNumber: 'GPM-20911', billedOn: dayFrom(now, -2), billMinor: 11_800 }, [
    ['PL-301', '8', '8'],
    ['PL-302', '4', '4'],
  ])
  purchase('Meridian Electrical Factors', { ...ordered, state: 'received' }, [['EL-102', '24', '24']])
  purchase('Gannet Plumbing Merchants', { ...ordered, state: 'ordered', expectedOn: dayFrom(now, 3), note: 'Please deliver to the quay door before noon.' }, [
    ['LS-402', '6', '2'],
    ['LS-401', '4', '0'],
  ])
  purchase('Meridian Electrical Factors', {}, [['EL-104', '5', '0']])
}
