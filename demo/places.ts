import { foldText } from '#core/kit'
import type { World } from './world'

export interface SpaceSpec {
  id: number
  code: string
  name: string
  building: string
  kind: string
  payer: string
}

interface Building {
  code: string
  name: string
  floors: { name: string; spaces: { name: string; count: number; payer: string }[] }[]
  access?: string
}

const s = (name: string, count: number, payer = '5800') => ({ name, count, payer })

const BUILDINGS: Building[] = [
  {
    code: 'TID',
    name: 'Tidehall',
    access: 'Badge at the north door. Wet floors: boots.',
    floors: [
      {
        name: 'Ground floor',
        spaces: [s('Wet laboratory', 6, '5100'), s('Cold room', 3, '5100'), s('Tank hall', 2, '5200'), s('Plant room', 1), s('Washroom', 2)],
      },
      {
        name: 'First floor',
        spaces: [s('Freezer bank', 2, '5300'), s('Laboratory', 7, '5200'), s('Microscope room', 2, '5300'), s('Office', 5, '5100'), s('Washroom', 2)],
      },
      { name: 'Second floor', spaces: [s('Laboratory', 6, '5300'), s('Seminar room', 2, '5200'), s('Office', 6, '5200'), s('Kitchenette', 1)] },
    ],
  },
  {
    code: 'LAN',
    name: 'Lantern House',
    access: 'Open to visitors 10:00 to 18:00; noisy work before or after.',
    floors: [
      {
        name: 'Ground floor',
        spaces: [s('Gallery', 4, '5400'), s('Ticket hall', 1, '5500'), s('Cloakroom', 1, '5500'), s('Washroom', 3, '5500'), s('Lift lobby', 1, '5400')],
      },
      { name: 'First floor', spaces: [s('Gallery', 4, '5400'), s('Auditorium', 1, '5500'), s('Projection room', 1, '5500'), s('Washroom', 2, '5500')] },
      { name: 'Second floor', spaces: [s('Classroom', 3, '5500'), s('Office', 4, '5400'), s('Feed kitchen', 1, '5400')] },
      { name: 'Tank deck', spaces: [s('Tank deck', 3, '5400'), s('Quarantine', 2, '5400'), s('Pump alcove', 2, '5400')] },
    ],
  },
  {
    code: 'PUM',
    name: 'Pump House',
    access: 'Key 14 from the desk. Never alone below the lower floor.',
    floors: [
      { name: 'Lower floor', spaces: [s('Seawater intake', 1), s('Filter hall', 2), s('Pump hall', 2), s('Ozone room', 1)] },
      { name: 'Upper floor', spaces: [s('Chiller hall', 1), s('Control room', 1), s('Switch room', 1), s('Store', 2), s('Workshop', 1)] },
    ],
  },
  {
    code: 'GAN',
    name: 'Gannet Court',
    access: 'Knock; lodgers may be asleep after night dives.',
    floors: [1, 2, 3, 4].map((n) => ({
      name: ['Ground floor', 'First floor', 'Second floor', 'Third floor'][n - 1]!,
      spaces: [s('Studio', 11, '5600'), s('Laundry', n === 1 ? 2 : 0, '5600'), s('Corridor', 1, '5600'), s('Boiler room', n === 1 ? 1 : 0)],
    })),
  },
  {
    code: 'KEL',
    name: 'Kelp House',
    floors: [
      { name: 'Ground floor', spaces: [s('Reception', 1), s('Library', 2, '5200'), s('Mail room', 1), s('Washroom', 2)] },
      { name: 'First floor', spaces: [s('Office', 10, '5200'), s('Meeting room', 2), s('Kitchenette', 1), s('Washroom', 2)] },
      { name: 'Second floor', spaces: [s('Office', 10, '5100'), s('Meeting room', 2), s('Print room', 1), s('Washroom', 2)] },
      { name: 'Third floor', spaces: [s('Server room', 1), s('Office', 7), s('Archive', 2), s('Roof access', 1), s('Kitchenette', 1), s('Washroom', 2)] },
    ],
  },
  {
    code: 'SLI',
    name: 'Slipway Works',
    access: 'Hard hat under the gantry.',
    floors: [
      {
        name: 'Ground floor',
        spaces: [
          s('Boat workshop', 2, '5700'),
          s('Dive store', 2, '5700'),
          s('Compressor room', 1, '5700'),
          s('Paint bay', 1, '5700'),
          s('Changing room', 2, '5700'),
          s('Office', 1, '5700'),
          s('Washroom', 2, '5700'),
          s('Battery room', 1, '5700'),
          s('Sail loft', 1, '5700'),
        ],
      },
    ],
  },
  {
    code: 'BRK',
    name: 'Breakwater',
    floors: [
      {
        name: 'Ground floor',
        spaces: [
          s('Café', 1, 'BRK-CAFE'),
          s('Café kitchen', 1, 'BRK-CAFE'),
          s('Kiosk', 1, 'NPK'),
          s('Shop', 1, 'SDS'),
          s('Washroom', 2),
          s('Store', 1),
          s('Terrace', 1, 'BRK-CAFE'),
        ],
      },
    ],
  },
]

const GROUNDS = [
  s('Quay', 2),
  s('Car park', 2),
  s('Sea wall', 2),
  s('Substation', 1),
  s('Bicycle shed', 1),
  s('Gatehouse', 1),
  s('Jetty', 2),
  s('Weather mast', 1),
  s('Fuel store', 1),
]
const HATCHERY = [
  s('Spawning room', 2, '5100'),
  s('Larval tanks', 3, '5100'),
  s('Algae laboratory', 1, '5100'),
  s('Plant room', 1),
  s('Office', 2, '5100'),
  s('Yard', 1),
  s('Cold room', 1, '5100'),
  s('Washroom', 1),
  s('Feed store', 1, '5100'),
  s('Pump room', 1),
]

/** Where buildings stand, in degrees: along an invented shore, the second site 25 minutes by road. */
const POSITIONS: Record<string, string> = {
  TID: '53.2301, -9.7402',
  LAN: '53.2309, -9.7391',
  PUM: '53.2291, -9.7430',
  GAN: '53.2316, -9.7410',
  BRK: '53.2295, -9.7376',
  SLI: '53.2288, -9.7419',
  KEL: '53.2322, -9.7384',
  GRD: '53.2306, -9.7398',
  HAT: '53.2871, -9.6640',
}

/** Two sites, their buildings, floors and about 240 spaces. */
export function makePlaces(world: World): { spaces: SpaceSpec[]; siteIds: { SKE: number; MUS: number } } {
  const site = (code: string, name: string) =>
    world.add('sites', {
      code,
      name,
      zone: 'Europe/Dublin',
      currency: 'EUR',
      calendar: world.calendar,
      deskPhone: '+353 91 555 0140',
      deskEmail: `desk-${code.toLowerCase()}@skerry.example`,
      triageMinutes: 60,
    }).id
  const siteIds = { SKE: site('SKE', 'Skerry Sound Marine Station'), MUS: site('MUS', 'Mussel Yard') }
  const spaces: SpaceSpec[] = []
  const payerId = (code: string) => world.rows.payers.find((payer) => payer.code === code)!.id!
  const put = (
    siteId: number,
    parent: { id: number; path: string; names: string } | null,
    kind: 'site' | 'building' | 'floor' | 'space' | 'grounds',
    code: string,
    name: string,
    more: { access?: string; payer?: string } = {},
  ) => {
    const names = parent ? `${name} ${parent.names}` : name
    const row = world.add('places', {
      siteId,
      parentId: parent?.id ?? null,
      kind,
      code,
      name,
      path: '',
      searchText: foldText(`${code} ${names}`),
      access: more.access ?? null,
      position: POSITIONS[code] ?? null,
      payerId: more.payer ? payerId(more.payer) : null,
    })
    row.path = `${parent?.path ?? '/'}${row.id}/`
    return { id: row.id, path: row.path, names }
  }
  const fill = (
    siteId: number,
    parent: { id: number; path: string; names: string },
    building: string,
    prefix: string,
    list: { name: string; count: number; payer: string }[],
  ) => {
    let room = 0
    for (const { name, count, payer } of list)
      for (let n = 1; n <= count; n++) {
        const code = `${prefix}${String(room + 1).padStart(2, '0')}`
        const label = count > 1 ? `${name} ${n}` : name
        const { id } = put(siteId, parent, 'space', code, label, { payer })
        spaces.push({ id, code, name: label, building, kind: name, payer })
        room++
      }
  }
  const main = put(siteIds.SKE, null, 'site', 'SKE', 'Skerry Sound Marine Station')
  for (const { code, name, floors, access } of BUILDINGS) {
    const building = put(siteIds.SKE, main, 'building', code, name, { access })
    floors.forEach((floor, index) =>
      fill(siteIds.SKE, put(siteIds.SKE, building, 'floor', `${code}-${index}`, floor.name), code, `${code}-${index}`, floor.spaces),
    )
  }
  fill(siteIds.SKE, put(siteIds.SKE, main, 'grounds', 'GRD', 'Grounds'), 'GRD', 'GRD-', GROUNDS)
  const second = put(siteIds.MUS, null, 'site', 'MUS', 'Mussel Yard')
  fill(
    siteIds.MUS,
    put(siteIds.MUS, second, 'building', 'HAT', 'Hatchery', { access: '25 minutes by road. Ring the bell at the gate.' }),
    'HAT',
    'HAT-',
    HATCHERY,
  )
  return { spaces, siteIds }
}
