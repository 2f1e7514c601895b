import { foldText } from '#core/kit'
import type { Answers, Question } from '#core/requests'
import type { Setting } from './simulate'

const HOUR = 3_600_000
const DAY = 24 * HOUR

const HINTS: Record<string, string> = {
  light: 'Lamps, switches, sockets, fuses',
  heat: 'Too warm, too cold, no air, fume cupboards',
  cold: 'Anything that must stay cold',
  water: 'Taps, showers, drains, toilets, leaks',
  seawater: 'Flow, pumps, tanks, filters',
  door: 'Will not open, will not lock, lost key',
  furniture: 'Shelves, desks, blinds',
  lift: 'Stuck, noisy, doors',
  fire: 'Detectors, doors, extinguishers',
  paint: 'Damp, cracks, marks',
  boat: 'Boats, outboards, station cars, dive gear',
  clean: 'Spills, rubbish, mice, gulls',
  other: 'If nothing else fits',
}

/** Kinds under a kind, each with what triage would otherwise have to ask. */
const UNDER: { parent: string; code: string; name: string; hint: string; questions: Question[] }[] = [
  {
    parent: 'cold',
    code: 'freezer',
    name: 'Freezer',
    hint: 'From −20 to −80 °C',
    questions: [
      { code: 'shows', label: 'What temperature does it show?', kind: 'number', unit: '°C', least: -100, most: 30, required: true },
      { code: 'alarm', label: 'Is the alarm on?', kind: 'yes_no', required: true },
      {
        code: 'since',
        label: 'Since when?',
        kind: 'choice',
        options: ['this hour', 'today', 'longer', 'I cannot tell'],
        required: false,
        when: { code: 'alarm', is: 'yes' },
      },
      { code: 'inside', label: 'What is inside, and can it be moved?', kind: 'text', required: false },
    ],
  },
  {
    parent: 'cold',
    code: 'coldroom',
    name: 'Cold room',
    hint: 'A room one walks into',
    questions: [
      { code: 'shows', label: 'What temperature does the door show?', kind: 'number', unit: '°C', least: -40, most: 30, required: true },
      { code: 'shut', label: 'Does the door shut by itself?', kind: 'yes_no', required: false },
    ],
  },
  {
    parent: 'boat',
    code: 'vehicle',
    name: 'Car or van of the station',
    hint: 'With its kilometres',
    questions: [
      { code: 'odometer', label: 'Kilometres on the clock', kind: 'meter', unit: 'km', least: 0, most: 900_000, required: true },
      { code: 'drives', label: 'Can it still be driven?', kind: 'yes_no', required: true },
      { code: 'stands', label: 'Where does it stand?', kind: 'text', required: false, when: { code: 'drives', is: 'no' } },
      { code: 'needed', label: 'Next needed on', kind: 'date', required: false },
    ],
  },
  {
    parent: 'water',
    code: 'leak',
    name: 'Leak',
    hint: 'Water where none should be',
    questions: [
      { code: 'how', label: 'How much?', kind: 'choice', options: ['a drop now and then', 'a steady drip', 'it runs'], required: true },
      { code: 'electric', label: 'Is it near anything electric?', kind: 'yes_no', required: true },
    ],
  },
]

/** Top kinds that ask something themselves. */
const ASKED: Record<string, Question[]> = {
  light: [
    { code: 'others', label: 'Do others nearby still work?', kind: 'yes_no', required: false },
    { code: 'how', label: 'What does it do?', kind: 'choice', options: ['nothing', 'flickers', 'sparks or smells', 'something else'], required: false },
  ],
  door: [
    { code: 'locked', label: 'Is anybody locked in or out now?', kind: 'yes_no', required: true },
    { code: 'key', label: 'Which key or card?', kind: 'text', required: false, when: { code: 'locked', is: 'yes' } },
  ],
  heat: [{ code: 'reads', label: 'What does the thermometer say?', kind: 'number', unit: '°C', least: -10, most: 60, required: false }],
}

const ARTICLES: { category: string; title: string; body: string }[] = [
  {
    category: 'light',
    title: 'A socket is dead: try this first',
    body: '<p>Most dead sockets in the studios are one tripped switch.</p><ol><li>Unplug whatever was plugged in last.</li><li>Open the small grey box beside the door.</li><li>Push the switch that points down back up, once.</li></ol><p>If it falls again, leave it and tell us: something is wrong with the wiring or the device.</p>',
  },
  {
    category: 'heat',
    title: 'Warming a studio in winter',
    body: '<p>The panel heater takes <strong>forty minutes</strong> to feel warm. Turn it to 4, shut the vent over the window halfway, and give it an hour.</p>',
  },
  {
    category: 'cold',
    title: 'A freezer alarm sounds: what to do until we come',
    body: '<h2>First</h2><ul><li>Keep the door shut. A full freezer stays below −50 °C for about three hours.</li><li>Do not unplug it.</li><li>Tell us the number on the display and how many freezers show it.</li></ul><p>The spare freezer stands in the same bank, marked with a green strip.</p>',
  },
  {
    category: 'water',
    title: 'The drain in the shower is slow',
    body: '<p>Lift the grate and take out the sieve. Sand from the shore collects there; rinse it over the bin, not the basin.</p>',
  },
]

/** What a reporter and the desk said about a request. */
const TALK: Record<string, [from: 'reporter' | 'desk' | 'inside', text: string][]> = {
  'Freezer alarm, −61 and rising': [
    ['reporter', 'It is at −58 now. We have moved the coral tissue to the second freezer.'],
    ['inside', 'Same freezer as in September. Ask refrigeration whether the compressor is still under warranty.'],
  ],
  'Drain is blocked': [
    ['desk', 'Thank you. Please leave the grate on; somebody looks at it today.'],
    ['reporter', 'Will do. It smells a little.'],
  ],
  'Ceiling light flickers': [['inside', 'Third time in this room. Look at the ballast, not the tube.']],
}

/** Everything around the requests that occupants and the desk see at intake: kinds with questions, notices, help, talk. */
export function makeIntake({ world }: Setting): void {
  const { now } = world
  const long = new Date(now.getTime() - 200 * DAY)
  const categoryOf = (code: string) => world.rows.categories.find((row) => row.code === code)!
  world.rows.categories.forEach((row, index) => Object.assign(row, { position: index * 10, hint: HINTS[row.code] }))
  for (const { parent, code, name, hint, questions } of UNDER) {
    const above = categoryOf(parent)
    const row = world.add('categories', { parentId: above.id, code, name, hint, tradeId: above.tradeId, position: above.position! + 1 })
    world.add('categoryForms', { categoryId: row.id, round: 1, questions, madeAt: long })
  }
  for (const [code, questions] of Object.entries(ASKED)) world.add('categoryForms', { categoryId: categoryOf(code).id!, round: 1, questions, madeAt: long })

  const place = (code: string) => world.rows.places.find((row) => row.code === code)!
  const siteId = place('GAN').siteId
  const writtenBy = world.rows.accounts[0]!.id!
  const bulletin = (kind: 'closure' | 'works' | 'event', title: string, body: string, from: number, to: number, codes: string[]) => {
    const at = (hours: number) => new Date(Math.floor(now.getTime() / HOUR) * HOUR + hours * HOUR)
    const { id } = world.add('bulletins', { siteId, kind, title, body, startsAt: at(from), endsAt: at(to), writtenBy })
    for (const code of codes) world.put('bulletinPlaces', { bulletinId: id, placeId: place(code).id! })
  }
  bulletin(
    'works',
    'Hot water off in Gannet Court',
    '<p>The calorifier is descaled. <strong>Cold water stays on.</strong> Showers are warm again by four.</p>',
    -2,
    6,
    ['GAN'],
  )
  bulletin('closure', 'Auditorium and gallery closed for the acrylic inspection', '<p>Please use the quay entrance to the tank deck.</p>', 44, 54, ['LAN'])
  bulletin('event', 'Open evening: the car park fills early', '<p>From five o’clock the upper car park is for visitors.</p>', 150, 156, ['GRD'])
  bulletin('works', 'Fire alarm test', '<p>A short sounding in every building. Nobody needs to leave.</p>', -170, -169, ['TID', 'LAN', 'PUM', 'KEL'])

  for (const { category, title, body } of ARTICLES)
    world.add('articles', {
      siteId,
      categoryId: categoryOf(category).id!,
      title,
      body,
      searchText: foldText(`${title} ${body.replace(/<[^>]+>/g, ' ')}`).slice(0, 2000),
      writtenBy,
      changedAt: new Date(now.getTime() - 60 * DAY),
    })

  talk(world, writtenBy)
  answer(world, 'Freezer alarm, −61 and rising', 'freezer', { shows: -61, alarm: 'yes', since: 'this hour', inside: 'Coral tissue, being moved' })
  answer(world, 'Socket by the desk is dead', 'light', { others: 'yes', how: 'nothing' })
  follow(world)
}

function talk(world: Setting['world'], accountId: number): void {
  const desk = world.rows.accounts.find((row) => row.id === accountId)!
  const said = new Set<string>()
  // The newest of each: those still open on the desk.
  for (const request of [...world.rows.requests].reverse()) {
    const lines = TALK[request.summary]
    if (!lines || said.has(request.summary)) continue
    said.add(request.summary)
    lines.forEach(([from, text], index) => {
      const at = new Date(Math.min(world.now.getTime() - 60_000 * (lines.length - index), request.receivedAt.getTime() + 60_000 * (4 + 3 * index)))
      const mine = from === 'reporter'
      const deskName = world.rows.people.find((person) => person.id === desk.personId)?.name ?? 'The desk'
      world.add('comments', {
        requestId: request.id!,
        kind: from === 'inside' ? 'note' : 'message',
        accountId: mine ? null : accountId,
        authorName: mine ? (request.reporterName ?? 'The reporter') : deskName,
        text,
        at,
      })
    })
  }
}

function answer(world: Setting['world'], summary: string, code: string, answers: Answers): void {
  const category = world.rows.categories.find((row) => row.code === code)!
  const form = world.rows.categoryForms.find((row) => row.categoryId === category.id)!
  const request = [...world.rows.requests].reverse().find((row) => row.summary === summary && row.state === 'new')
  if (request) Object.assign(request, { categoryId: category.id, formId: form.id, answers })
}

/** Two neighbours have the same trouble. */
function follow(world: Setting['world']): void {
  const request = [...world.rows.requests].reverse().find((row) => row.summary === 'Room does not get warm' && row.state === 'new')
  if (!request) return
  for (const person of world.rows.people.slice(20, 22))
    world.add('followers', {
      requestId: request.id!,
      email: person.email!,
      name: person.name,
      at: new Date(world.now.getTime() - 10 * 60_000),
      linkHash: world.rng.hex(64),
      linkNonce: world.rng.hex(32),
    })
}
