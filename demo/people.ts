import { foldText } from '#core/kit'
import type { DayStretch } from '#core/kit'
import type { Role } from '#core/people'
import type { SpaceSpec } from './places'
import type { World } from './world'

export const TRADES = [
  ['electrical', 'Electrical'],
  ['hvac', 'HVAC and refrigeration'],
  ['plumbing', 'Plumbing'],
  ['life_support', 'Life support'],
  ['joinery', 'Joinery'],
  ['locks', 'Locks and doors'],
  ['general', 'General'],
  ['painting', 'Painting'],
  ['boats', 'Boats'],
  ['lifts', 'Lifts'],
  ['fire', 'Fire safety'],
  ['cleaning', 'Cleaning'],
] as const

const STAFF: { name: string; title: string; roles: Role[]; limit?: number }[] = [
  { name: 'Maren Quill', title: 'Help desk coordinator', roles: ['coordinator'] },
  { name: 'Tobias Achterberg', title: 'Help desk coordinator', roles: ['coordinator'] },
  { name: 'Ines Ferrall', title: 'Maintenance supervisor', roles: ['approver'], limit: 250_000 },
  { name: 'Osric Vane', title: 'Head of estates', roles: ['approver'], limit: 2_500_000 },
  { name: 'Petra Lindqvist', title: 'Billing clerk', roles: ['billing_clerk'] },
  { name: 'Yusuf Adeyemi-Rourke', title: 'Facilities manager', roles: ['manager'] },
  { name: 'Wendeline Stroud', title: 'Administrator', roles: ['administrator'] },
]

const DAY: [string, string] = ['08:00', '16:30']
const EARLY: [string, string] = ['06:00', '14:30']
const LATE: [string, string] = ['13:00', '21:30']

const CREW: { name: string; trades: string[]; team: string; shift: [string, string]; rate: number; days?: number[] }[] = [
  { name: 'Bram Oyelaran', trades: ['electrical'], team: 'Electrical', shift: DAY, rate: 4800 },
  { name: 'Sunniva Teague', trades: ['electrical', 'fire'], team: 'Electrical', shift: EARLY, rate: 4950 },
  { name: 'Caspian Dunmore', trades: ['hvac'], team: 'Mechanical', shift: DAY, rate: 5200 },
  { name: 'Odalys Brannigan', trades: ['hvac', 'life_support'], team: 'Mechanical', shift: LATE, rate: 5350 },
  { name: 'Fintan Rosewarne', trades: ['plumbing'], team: 'Mechanical', shift: DAY, rate: 4600 },
  { name: 'Ilse Marchetti', trades: ['plumbing', 'general'], team: 'Mechanical', shift: EARLY, rate: 4500 },
  { name: 'Rafferty Osei', trades: ['life_support'], team: 'Life support', shift: EARLY, rate: 5100, days: [0, 1, 2, 3, 4] },
  { name: 'Petronel Vaz', trades: ['life_support', 'plumbing'], team: 'Life support', shift: DAY, rate: 5050, days: [2, 3, 4, 5, 6] },
  { name: 'Hedda Kilbride', trades: ['joinery'], team: 'Fabric', shift: DAY, rate: 4400 },
  { name: 'Lorcan Abiodun', trades: ['locks', 'joinery'], team: 'Fabric', shift: DAY, rate: 4300 },
  { name: 'Greta Solheim', trades: ['general', 'painting'], team: 'Fabric', shift: DAY, rate: 3800 },
  { name: 'Anselm Pryce', trades: ['painting'], team: 'Fabric', shift: DAY, rate: 3900 },
  { name: 'Teodora Flint', trades: ['general', 'locks'], team: 'Fabric', shift: LATE, rate: 3800 },
  { name: 'Magnus Delacroix', trades: ['boats', 'general'], team: 'Slipway', shift: DAY, rate: 4700 },
]

const FIRST = [
  'Aoife',
  'Bastian',
  'Clio',
  'Dara',
  'Elias',
  'Farida',
  'Gwen',
  'Hugo',
  'Isolde',
  'Jonas',
  'Keira',
  'Lucan',
  'Mirela',
  'Nuala',
  'Oskar',
  'Priya',
  'Quentin',
  'Rosa',
  'Stellan',
  'Tamsin',
  'Una',
  'Viktor',
  'Wren',
  'Xenia',
  'Yara',
  'Zeno',
]
const LAST = [
  'Ashdown',
  'Bellweather',
  'Corrigan',
  'Drummond',
  'Eskildsen',
  'Farrow',
  'Galbraith',
  'Hallorane',
  'Ingleby',
  'Jessop',
  'Kestrel',
  'Lindgren',
  'Merriweather',
  'Norcross',
  'Okonjo',
  'Penhallow',
  'Quigley',
  'Ravenscroft',
  'Szabo',
  'Thackeray',
]

export interface Crew {
  technicianId: number
  accountId: number
  name: string
  trades: string[]
  shift: DayStretch[][]
  rate: number
}

/** Accounts of the staff, fourteen technicians, and about 180 occupants. */
export function makePeople(world: World, siteId: number, spaces: SpaceSpec[]): { crew: Crew[]; staff: Map<string, number> } {
  for (const [code, name] of TRADES) world.add('trades', { code, name })
  const person = (name: string, title: string, placeId: number | null, payerId: number | null, extension: string) =>
    world.add('people', {
      siteId,
      name,
      email: emailOf(name),
      phone: `+353 91 555 ${extension}`,
      extension,
      title,
      placeId,
      payerId,
      searchText: foldText(`${name} ${emailOf(name).replace('@', ' ')} ${extension} ${title}`),
    })
  const account = (name: string, personId: number, roles: Role[], limit: number | null, everySite: boolean) => {
    const { id } = world.add('accounts', { personId, email: emailOf(name), passwordHash: world.passwordHash, approvalLimitMinor: limit })
    for (const role of roles) world.add('accountRoles', { accountId: id, role, siteId: everySite ? null : siteId })
    return id
  }
  const staff = new Map(
    STAFF.map(({ name, title, roles, limit }, index) => [
      name,
      account(name, person(name, title, null, null, `0${140 + index}`).id, roles, limit ?? null, true),
    ]),
  )
  const crew = makeCrew(world, siteId, (name, index) =>
    account(name, person(name, 'Technician', null, null, `0${160 + index}`).id, ['technician'], null, false),
  )
  const helpDesk = world.add('teams', { siteId, name: 'Help desk' }).id
  for (const name of ['Maren Quill', 'Tobias Achterberg', 'Ines Ferrall'])
    Object.assign(
      world.rows.accounts.find((row) => row.id === staff.get(name))!,
      { teamId: helpDesk },
    )
  const days = 86_400_000
  world.add('deputies', {
    forAccountId: staff.get('Osric Vane')!,
    deputyAccountId: staff.get('Ines Ferrall')!,
    fromAt: new Date(world.now.getTime() + 6 * days),
    untilAt: new Date(world.now.getTime() + 13 * days),
  })
  const payerId = (code: string) => world.rows.payers.find((payer) => payer.code === code)!.id!
  const homes = spaces.filter(
    (space) => /Office|Studio|Laboratory|laboratory|Café|Kiosk|Shop|Gallery|Dive store|Reception/.test(space.kind) && space.building !== 'HAT',
  )
  for (let index = 0; index < 180; index++) {
    const space = homes[index % homes.length]!
    const name = `${FIRST[index % FIRST.length]} ${LAST[Math.floor(index / FIRST.length + index) % LAST.length]}`
    if (world.rows.people.some((other) => other.email === emailOf(name))) continue
    const title = { GAN: 'Visiting researcher', LAN: 'Aquarium staff', BRK: 'Tenant', SLI: 'Dive team' }[space.building] ?? 'Researcher'
    person(name, title, space.id, payerId(space.payer), String(2000 + index))
  }
  return { crew, staff }
}

function makeCrew(world: World, siteId: number, account: (name: string, index: number) => number): Crew[] {
  const teams = new Map([...new Set(CREW.map(({ team }) => team))].map((name) => [name, world.add('teams', { siteId, name }).id]))
  return CREW.map(({ name, trades, team, shift, rate, days = [0, 1, 2, 3, 4] }, index) => {
    const accountId = account(name, index)
    const week = Array.from({ length: 7 }, (_, day) => (days.includes(day) ? [{ from: shift[0], to: shift[1] }] : []))
    const { id } = world.add('technicians', { accountId, teamId: teams.get(team)!, shift: week, stepMinutes: 5, callOutMinutes: 0 })
    for (const code of trades) world.put('technicianTrades', { technicianId: id, tradeId: tradeId(world, code) })
    const begin = new Date(world.now.getTime() - 500 * 86_400_000)
    const raised = new Date(Date.UTC(world.now.getUTCFullYear(), 0, 1))
    world.add('technicianRates', { technicianId: id, fromAt: begin, normalPerHour: Math.round(rate * 0.96), overtimePerHour: Math.round(rate * 0.96 * 1.5) })
    world.add('technicianRates', { technicianId: id, fromAt: raised, normalPerHour: rate, overtimePerHour: Math.round(rate * 1.5) })
    if (name === 'Anselm Pryce')
      world.add('leaves', { technicianId: id, fromAt: new Date(world.now.getTime() - 2 * 86_400_000), untilAt: new Date(world.now.getTime() + 5 * 86_400_000) })
    return { technicianId: id, accountId, name, trades, shift: week, rate }
  })
}

export const tradeId = (world: World, code: string) => world.rows.trades.find((trade) => trade.code === code)!.id!

export const emailOf = (name: string) =>
  `${name
    .toLowerCase()
    .replace(/[^a-z -]/g, '')
    .replace(/ /g, '.')}@skerry.example`
