import { foldText } from '#core/kit'
import { tradeId } from './people'
import type { SpaceSpec } from './places'
import type { World } from './world'

export function makePayers(world: World): void {
  const payer = (code: string, name: string, kind: 'cost_centre' | 'grant' | 'tenant' | 'own', budget: number | null = null) =>
    world.add('payers', {
      code,
      name,
      kind,
      taxBp: kind === 'tenant' ? 2300 : 0,
      email: `${code.toLowerCase()}@payers.skerry.example`,
      budgetMinor: budget,
      endsOn: kind === 'grant' ? dayFrom(world.now, 150) : null,
    })
  payer('5100', 'Fish Health Laboratory', 'cost_centre', 6_000_000)
  payer('5200', 'Seagrass Ecology', 'cost_centre', 4_500_000)
  payer('5300', 'Deep Corals', 'grant', 2_000_000)
  payer('5400', 'Aquarium Operations', 'cost_centre', 12_000_000)
  payer('5500', 'Visitor Programmes', 'cost_centre', 3_000_000)
  payer('5600', 'Lodging', 'cost_centre', 5_000_000)
  payer('5700', 'Fleet and Diving', 'cost_centre', 4_000_000)
  payer('5800', 'Estates', 'own')
  payer('BRK-CAFE', 'Breakwater Café', 'tenant')
  payer('SDS', 'Sound Dive School', 'tenant')
  payer('NPK', 'North Pier Kiosk', 'tenant')
  world.put('markups', { kind: 'labour', markupBp: 0 })
  world.put('markups', { kind: 'parts', markupBp: 500 })
  world.put('markups', { kind: 'vendor', markupBp: 1000 })
}

const VENDORS: [name: string, service: string, trade: string, callOut: number, perHour: number, markup: number][] = [
  ['Halyard Lifts', 'Lifts', 'lifts', 12_000, 9_500, 1500],
  ['Northbay Cooling', 'Chillers', 'hvac', 15_000, 11_000, 1500],
  ['Ember and Gale', 'Fire alarm and sprinklers', 'fire', 9_000, 8_500, 1000],
  ['Clearwater Acrylics', 'Acrylic panels', 'life_support', 18_000, 12_000, 1200],
  ['Slate and Spar', 'Roofing', 'joinery', 8_000, 6_800, 1000],
  ['Quiet Paws', 'Pest control', 'general', 6_000, 5_500, 1000],
  ['Runnel Drains', 'Drains', 'plumbing', 9_500, 7_200, 1000],
  ['Standby Sound Power', 'Generator', 'electrical', 14_000, 9_800, 1200],
  ['Ohm and Sons', 'Electrical testing', 'electrical', 7_500, 7_000, 1000],
  ['Brightside Cleaning', 'Cleaning', 'cleaning', 4_000, 3_200, 800],
  ['Deepair Testing', 'Breathing-air compressor tests', 'boats', 11_000, 8_800, 1000],
]

/** The vendor whose visits begin late, every time. */
export const LATE_VENDOR = 'Runnel Drains'

export function makeVendors(world: World): void {
  VENDORS.forEach(([name, service, trade, callOutMinor, perHourMinor, markupBp], index) => {
    const address = name.toLowerCase().replace(/[^a-z]+/g, '-')
    const { id } = world.add('vendors', {
      name,
      service,
      email: `jobs@${address}.example`,
      phone: `+353 1 555 0${200 + index}`,
      contactName: 'Job desk',
      callOutMinor,
      perHourMinor,
      markupBp,
      contractUntil: dayFrom(world.now, 60 + index * 37),
      insuranceUntil: dayFrom(world.now, index === 4 ? -6 : 90 + index * 29),
    })
    world.put('vendorTrades', { vendorId: id, tradeId: tradeId(world, trade) })
  })
}

const CATEGORIES: [code: string, name: string, trade: string][] = [
  ['light', 'Lights and sockets', 'electrical'],
  ['heat', 'Heating and cooling', 'hvac'],
  ['cold', 'Cold rooms and freezers', 'hvac'],
  ['water', 'Water, drains and toilets', 'plumbing'],
  ['seawater', 'Seawater and tanks', 'life_support'],
  ['door', 'Doors, locks and keys', 'locks'],
  ['furniture', 'Furniture and fittings', 'joinery'],
  ['lift', 'Lifts', 'lifts'],
  ['fire', 'Fire safety', 'fire'],
  ['paint', 'Walls and paint', 'painting'],
  ['boat', 'Boats and dive gear', 'boats'],
  ['clean', 'Cleaning and pests', 'cleaning'],
  ['other', 'Something else', 'general'],
]

export function makeCategories(world: World): void {
  for (const [code, name, trade] of CATEGORIES) world.add('categories', { code, name, tradeId: tradeId(world, trade) })
}

export interface AssetSpec {
  id: number
  tag: string
  spaceId: number
  kind: string
  category: string
}

const FITTED: { where: RegExp; kind: string; code: string; category: string; maker: string; price: number; each?: number }[] = [
  { where: /Cold room/, kind: 'Cold room plant', code: 'D3030', category: 'cold', maker: 'Frostell', price: 1_400_000 },
  { where: /Freezer bank/, kind: 'Freezer −80 °C', code: 'E1090', category: 'cold', maker: 'Polarbox', price: 1_150_000, each: 6 },
  { where: /laborator|Laborator/, kind: 'Fume cupboard', code: 'E1020', category: 'heat', maker: 'Airwell', price: 620_000 },
  {
    where: /Laborator|laborator|Office|Seminar|Classroom|Library|Meeting/,
    kind: 'Fan coil',
    code: 'D3050',
    category: 'heat',
    maker: 'Brisk Air',
    price: 95_000,
  },
  { where: /Washroom/, kind: 'Water heater', code: 'D2020', category: 'water', maker: 'Warmspring', price: 60_000 },
  { where: /Studio/, kind: 'Shower pump', code: 'D2010', category: 'water', maker: 'Rillpump', price: 28_000 },
  { where: /Studio|Office|Laundry/, kind: 'Door lock', code: 'C1020', category: 'door', maker: 'Keywright', price: 22_000 },
  { where: /Gallery|Tank deck|Tank hall|Larval/, kind: 'Tank pump', code: 'D2090', category: 'seawater', maker: 'Seaturn', price: 240_000 },
  { where: /Quarantine|Gallery/, kind: 'Protein skimmer', code: 'D2090', category: 'seawater', maker: 'Foamline', price: 310_000 },
  { where: /Filter hall/, kind: 'Sand filter', code: 'D2090', category: 'seawater', maker: 'Gritwell', price: 880_000, each: 3 },
  { where: /Pump hall|Seawater intake/, kind: 'Seawater pump', code: 'D2090', category: 'seawater', maker: 'Seaturn', price: 1_250_000, each: 2 },
  { where: /Corridor|Lobby|Auditorium|Archive/, kind: 'Fire door', code: 'C1020', category: 'door', maker: 'Holdfast', price: 140_000 },
  { where: /Boat workshop/, kind: 'Gantry hoist', code: 'D1090', category: 'boat', maker: 'Heftline', price: 1_900_000 },
  { where: /Studio/, kind: 'Panel heater', code: 'D3050', category: 'heat', maker: 'Warmspring', price: 31_000 },
  { where: /Washroom|Kitchenette|Laundry|Changing/, kind: 'Extract fan', code: 'D3040', category: 'heat', maker: 'Airwell', price: 42_000 },
  { where: /laborator|Laborator/, kind: 'Eyewash', code: 'D2010', category: 'water', maker: 'Rillpump', price: 36_000 },
  { where: /Café kitchen|Feed kitchen|Kitchenette/, kind: 'Refrigerator', code: 'E1090', category: 'cold', maker: 'Frostell', price: 180_000 },
]

/** Where the initials of two kinds would be the same. */
const TAG_LETTERS: Record<string, string> = {
  'Freezer −80 °C': 'F',
  'Fume cupboard': 'FH',
  'Sand filter': 'SF',
  'Shower pump': 'SH',
  'Fire door': 'FD',
  'Extract fan': 'XF',
  'Protein skimmer': 'PS',
}

/** About 420 assets: what is fitted in each kind of space, and a few machines with a history of their own. */
export function makeAssets(world: World, spaces: SpaceSpec[]): AssetSpec[] {
  const made: AssetSpec[] = []
  const place = (id: number) => world.rows.places.find((row) => row.id === id)!
  const add = (spec: {
    tag: string
    name: string
    space: SpaceSpec
    code: string
    maker: string
    price: number
    category: string
    kind: string
    vendor?: string
    payer?: string
    parentId?: number
    warrantyDays?: number
    ageDays?: number
  }) => {
    const age = spec.ageDays ?? world.rng.int(200, 4000)
    const { id } = world.add('assets', {
      siteId: place(spec.space.id).siteId,
      parentId: spec.parentId ?? null,
      vendorId: spec.vendor ? world.rows.vendors.find((row) => row.name === spec.vendor)!.id! : null,
      payerId: spec.payer ? world.rows.payers.find((row) => row.code === spec.payer)!.id! : null,
      // Whoever works in the room knows the machine, unless it is plant.
      contactId: spec.code.startsWith('E') ? (world.rows.people.find((row) => row.placeId === spec.space.id)?.id ?? null) : null,
      placeId: spec.space.id,
      tag: spec.tag,
      name: spec.name,
      classCode: spec.code,
      maker: spec.maker,
      model: `${spec.maker.slice(0, 2).toUpperCase()}-${world.rng.int(100, 900)}`,
      serial: world.rng.hex(10).toUpperCase(),
      installedOn: dayFrom(world.now, -age),
      priceMinor: spec.price,
      warrantyUntil: dayFrom(world.now, spec.warrantyDays ?? 730 - age),
      searchText: foldText(`${spec.tag} ${spec.name} ${spec.space.name} ${spec.space.code}`),
    })
    const row = world.rows.assets.find((one) => one.id === id)!
    row.path = `${spec.parentId ? world.rows.assets.find((one) => one.id === spec.parentId)!.path : '/'}${id}/`
    made.push({ id, tag: spec.tag, spaceId: spec.space.id, kind: spec.kind, category: spec.category })
    return id
  }
  const named = (code: string) => spaces.find((space) => space.name.startsWith(code))!
  const chillerHall = named('Chiller hall')
  for (const n of [1, 2]) {
    const chiller = add({
      tag: `CH-${n}`,
      name: `Seawater chiller ${n}`,
      space: chillerHall,
      code: 'D3030',
      maker: 'Northcold',
      price: 9_800_000,
      category: 'heat',
      kind: 'Chiller',
      vendor: 'Northbay Cooling',
      ageDays: 1500,
    })
    for (const part of ['Compressor A', 'Compressor B', 'Condenser pump', 'Evaporator pump'])
      add({
        tag: `CH-${n}-${part
          .split(' ')
          .map((word) => word[0])
          .join('')}`,
        name: `${part} of chiller ${n}`,
        space: chillerHall,
        code: 'D3030',
        maker: 'Northcold',
        price: 1_600_000,
        category: 'heat',
        kind: part.startsWith('C') && part.includes('r A') ? 'Compressor' : 'Chiller part',
        vendor: 'Northbay Cooling',
        parentId: chiller,
        ageDays: 1500,
      })
  }
  add({
    tag: 'LIFT-1',
    name: 'Visitor lift',
    space: named('Lift lobby'),
    code: 'D1010',
    maker: 'Halyard',
    price: 7_400_000,
    category: 'lift',
    kind: 'Lift',
    vendor: 'Halyard Lifts',
    ageDays: 2400,
  })
  add({
    tag: 'GEN-1',
    name: 'Standby generator',
    space: named('Substation'),
    code: 'D5090',
    maker: 'Standby',
    price: 5_600_000,
    category: 'light',
    kind: 'Generator',
    ageDays: 2900,
  })
  add({
    tag: 'AIR-1',
    name: 'Breathing-air compressor',
    space: named('Compressor room'),
    code: 'D1090',
    maker: 'Deepair',
    price: 2_300_000,
    category: 'boat',
    kind: 'Compressor',
    ageDays: 900,
  })
  const counters = new Map<string, number>()
  for (const space of spaces)
    for (const fit of FITTED.filter((candidate) => candidate.where.test(space.kind)))
      for (let n = 0; n < (fit.each ?? 1); n++) {
        const letters =
          TAG_LETTERS[fit.kind] ??
          fit.kind
            .replace(/[^A-Za-z ]/g, '')
            .split(' ')
            .filter(Boolean)
            .map((word) => word[0]!.toUpperCase())
            .join('')
            .slice(0, 2)
        const number = (counters.get(letters) ?? 0) + 1
        counters.set(letters, number)
        const trouble = fit.kind.startsWith('Freezer') && number === 3
        add({
          tag: `${letters}-${String(number).padStart(3, '0')}`,
          name: `${fit.kind}, ${space.name}`,
          space,
          code: fit.code,
          maker: fit.maker,
          price: fit.price,
          category: fit.category,
          kind: fit.kind,
          // Freezers stand where there was room: whose samples are inside pays, not who has the room.
          ...(fit.kind.startsWith('Freezer') ? { payer: ['5100', '5200', '5300'][number % 3]!, vendor: 'Northbay Cooling' } : {}),
          ...(trouble ? { warrantyDays: 24, ageDays: 706 } : {}),
        })
      }
  return made
}

const PARTS: [code: string, name: string, unit: string, cost: number, stock: number][] = [
  ['EL-101', 'LED tube 1200 mm', 'pc', 890, 120],
  ['EL-102', 'LED lamp 9 W', 'pc', 420, 200],
  ['EL-103', 'Socket, double', 'pc', 760, 60],
  ['EL-104', 'Contactor 25 A', 'pc', 4_350, 14],
  ['HV-201', 'Fan belt A38', 'pc', 1_260, 24],
  ['HV-202', 'Air filter 500 x 500', 'pc', 1_480, 90],
  ['HV-203', 'Refrigerant R448A', 'kg', 5_200, 30],
  ['HV-204', 'Compressor start relay', 'pc', 6_900, 8],
  ['PL-301', 'Tap cartridge', 'pc', 1_150, 40],
  ['PL-302', 'Flexible hose 15 mm', 'pc', 680, 70],
  ['PL-303', 'Toilet fill valve', 'pc', 1_320, 35],
  ['PL-304', 'Trap 40 mm', 'pc', 540, 50],
  ['LS-401', 'Pump seal kit', 'set', 8_400, 16],
  ['LS-402', 'UV lamp 80 W', 'pc', 12_600, 10],
  ['LS-403', 'Seawater valve 50 mm', 'pc', 7_300, 12],
  ['DR-501', 'Door closer', 'pc', 5_900, 12],
  ['DR-502', 'Lock cylinder', 'pc', 2_480, 30],
  ['DR-503', 'Hinge, stainless', 'pair', 1_640, 40],
  ['GE-601', 'Silicone sealant', 'tube', 730, 80],
  ['GE-602', 'Wall paint, white', 'l', 640, 150],
]

export function makeStock(world: World, siteId: number, spaces: SpaceSpec[]): void {
  const { id: storeId } = world.add('stores', {
    siteId,
    placeId: spaces.find((space) => space.building === 'PUM' && space.kind === 'Store')!.id,
    name: 'Main store',
  })
  for (const [code, name, unit, cost, stock] of PARTS) {
    const { id } = world.add('parts', { code, name, unit, searchText: foldText(`${code} ${name}`) })
    world.put('stockLevels', { storeId, partId: id, quantity: String(stock), averageCostMinor: cost })
  }
  for (const [tag, name, perDayMinor] of [
    ['EQ-1', 'Scaffold tower', 2_500],
    ['EQ-2', 'Lift truck', 6_000],
    ['EQ-3', 'Leak camera', null],
    ['EQ-4', 'Dehumidifier', 1_200],
  ] as const)
    world.add('equipment', { siteId, tag, name, perDayMinor })
}

export function makeRules(world: World, siteIds: number[]): void {
  const rules = [
    ['emergency', 'continuous', 30, 240],
    ['urgent', 'working', 120, 480],
    ['routine', 'working', 480, 2_400],
    ['deferred', 'working', 2_400, 9_600],
  ] as const
  for (const siteId of siteIds)
    for (const [priority, clock, responseMinutes, completionMinutes] of rules)
      world.add('targetRules', { siteId, priority, clock, responseMinutes, completionMinutes })
  world.put('settings', { name: 'holds_that_stop', value: ['part', 'access', 'weather'] })
}

export const dayFrom = (now: Date, days: number) => new Date(now.getTime() + days * 86_400_000).toISOString().slice(0, 10)
