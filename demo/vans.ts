import type { Setting } from './simulate'

/** What lies in whose van. Invented. */
const VANS: [van: string, driver: string, load: [code: string, quantity: number][]][] = [
  [
    'Van 1',
    'Sunniva Teague',
    [
      ['HV-201', 4],
      ['HV-203', 2],
      ['GE-601', 3],
    ],
  ],
  [
    'Van 2',
    'Caspian Dunmore',
    [
      ['PL-301', 3],
      ['PL-302', 2],
      ['GE-601', 2],
    ],
  ],
  [
    'Van 3',
    'Odalys Brannigan',
    [
      ['LS-403', 2],
      ['EL-101', 6],
    ],
  ],
]

/** Stores on wheels, filled out of the main store a week ago. */
export function makeVans({ world, staff }: Setting): void {
  const { rows, now } = world
  const accountOf = (name: string) => rows.accounts.find(({ personId }) => personId === rows.people.find((one) => one.name === name)!.id)!.id!
  const { id: mainId } = rows.stores.find((one) => one.name === 'Main store')!
  const at = new Date(now.getTime() - 7 * 86_400_000)
  for (const [name, driver, load] of VANS) {
    const { id: storeId } = world.add('stores', { siteId: 1, name, carriedBy: accountOf(driver) })
    for (const [code, quantity] of load) {
      const partId = rows.parts.find((one) => one.code === code)!.id!
      const main = rows.stockLevels.find((one) => one.storeId === mainId && one.partId === partId)!
      if (Number(main.quantity) < quantity) continue
      main.quantity = String(Number(main.quantity) - quantity)
      world.put('stockLevels', { storeId, partId, quantity: String(quantity), averageCostMinor: main.averageCostMinor })
      const moved = { partId, kind: 'transfer' as const, unitCostMinor: main.averageCostMinor, at, by: staff.get('Maren Quill')! }
      world.add('stockMovements', { ...moved, storeId: mainId!, quantity: `-${quantity}` })
      world.add('stockMovements', { ...moved, storeId, quantity: String(quantity) })
    }
  }
}
