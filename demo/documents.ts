import { createHash } from 'node:crypto'
import { documentWords } from '#core/documents'
import type { Audience, DocumentKind } from '#core/documents'
import type { ListKind } from '#core/lists'
import { planPage, plateOf, textPages } from './pages'
import type { World } from './world'

interface Spec {
  on: ListKind
  id: number
  kind: DocumentKind
  title: string
  /** Days from now, at noon. */
  from?: number
  until?: number
  remind?: number
  audience?: Audience[]
  /** Each version: how many days ago it was added, under which name, and what is in it. */
  files: { days: number; name: string; content: Buffer; shows: 'pdf' | 'text' | 'picture'; inside?: string; thumb?: Buffer }[]
}

const DAY = 86_400_000

/** Manuals, certificates, contracts, warranties, drawings and photos, with made-up pages. Invented. */
export async function makeDocuments(world: World): Promise<void> {
  const { now } = world
  const put = keeper(world)
  const asset = (tag: string) => world.rows.assets.find((row) => row.tag === tag)!
  const place = (code: string) => world.rows.places.find((row) => row.code === code)!
  const pdf = async (days: number, name: string, title: string, by: string, chapters: [string, string[]][]) => ({
    days,
    name,
    content: await textPages(title, by, chapters, new Date(now.getTime() - days * DAY)),
    shows: 'pdf' as const,
    inside: [title, by, ...chapters.flatMap(([heading, lines]) => [heading, ...lines])].join(' '),
  })

  for (const tag of ['CH-1', 'CH-2']) {
    const chiller = asset(tag)
    const title = `${chiller.model}: operation and care`
    put({
      on: 'assets',
      id: chiller.id!,
      kind: 'manual',
      title,
      audience: ['technician', 'vendor'],
      files: [await pdf(380, `${String(chiller.model)}-manual.pdf`, title, `${chiller.maker} refrigeration`, MANUAL)],
    })
  }
  const plate = asset('CH-1')
  put({
    on: 'assets',
    id: plate.id!,
    kind: 'photo',
    title: 'Name plate of chiller 1',
    audience: ['technician'],
    files: [
      {
        days: 210,
        name: 'plate.jpg',
        shows: 'picture',
        ...(await plateOf([String(plate.maker), `Model ${plate.model}`, `Serial ${plate.serial}`, 'R-1234ze  42 kg', '400 V  3~  50 Hz  96 A'])),
      },
    ],
  })
  const certificate = async (tag: string, title: string, until: number, lines: string[], audience: Audience[] = ['technician', 'vendor']) => {
    const one = asset(tag)
    const pages: [string, string[]][] = [['What was examined', [`${one.tag} ${one.name}`, ...lines]]]
    const name = `${tag.toLowerCase()}-certificate.pdf`
    const files = [await pdf(365 - until, name, title, 'Examined by a competent person', pages)]
    put({ on: 'assets', id: one.id!, kind: 'certificate', title, from: until - 365, until, remind: 30, audience, files })
  }
  await certificate('LIFT-1', 'Thorough examination of the lift', 19, [
    'Ropes, governor, buffers, landing doors.',
    'Defect to be watched: the door of the first landing closes late.',
  ])
  const vessel = world.rows.assets.find((row) => /compressor/i.test(row.name) && row.tag !== 'CH-1-CA')
  if (vessel)
    await certificate(vessel.tag, 'Examination of the pressure vessel', -11, [
      'Safety valve lifted at 11 bar.',
      'Next examination before the date on page one.',
    ])
  const freezer = world.rows.assets.find((row) => /freezer/i.test(row.name))
  if (freezer)
    await certificate(
      freezer.tag,
      'Calibration of the temperature probe',
      140,
      ['Probe against reference at -80 C, -40 C, 0 C.', 'Largest deviation 0.4 K.'],
      ['technician'],
    )

  const vendors = world.rows.vendors.slice(0, 8)
  for (const [index, vendor] of vendors.entries()) {
    const until = vendor.contractUntil ? Math.round((Date.parse(`${vendor.contractUntil}T12:00:00Z`) - now.getTime()) / DAY) : 200 + index * 30
    const title = `Maintenance contract, ${vendor.name}`
    put({
      on: 'vendors',
      id: vendor.id!,
      kind: 'contract',
      title,
      from: until - 730,
      until,
      remind: 60,
      files: [
        await pdf(Math.min(700, 730 - until), 'contract.pdf', title, 'Skerry Sound Marine Station, Estates', [
          [
            'What is agreed',
            [
              `${vendor.service ?? 'Works'} as called for.`,
              'Answers within four hours on working days, within eight otherwise.',
              'Ends by notice of three months.',
            ],
          ],
        ]),
      ],
    })
  }
  for (const one of world.rows.assets.filter((row) => row.warrantyUntil && Date.parse(row.warrantyUntil) > now.getTime() - 40 * DAY).slice(0, 6)) {
    const until = Math.round((Date.parse(`${one.warrantyUntil}T12:00:00Z`) - now.getTime()) / DAY)
    const title = `Warranty of ${one.tag}`
    put({
      on: 'assets',
      id: one.id!,
      kind: 'warranty',
      title,
      until,
      remind: 45,
      audience: ['vendor'],
      files: [
        await pdf(Math.max(1, 300 - until), 'warranty.pdf', title, String(one.maker ?? 'The maker'), [
          ['What is covered', [one.warrantyTerms ?? 'Parts against faults of making.', `Serial ${one.serial ?? 'as on the plate'}.`]],
        ]),
      ],
    })
  }
  for (const code of ['TID-0', 'PUM-1', 'LAN-0']) {
    const floor = place(code)
    const spaces = world.rows.spaceShapes
      .filter((row) => row.planId === floor.id)
      .map((row) => ({ ...world.rows.places.find((one) => one.id === row.spaceId)!, shape: row.shape }))
    const title = `${code} as built`
    const page = async (days: number, name: string) => ({
      days,
      name,
      content: await planPage(title, spaces, new Date(now.getTime() - days * DAY)),
      shows: 'pdf' as const,
      inside: spaces.map((one) => `${one.code} ${one.name}`).join(' '),
    })
    const files = [await page(400, `${code}-rev-a.pdf`), ...(code === 'TID-0' ? [await page(90, `${code}-rev-b.pdf`)] : [])]
    put({ on: 'places', id: floor.id!, kind: 'drawing', title, audience: ['technician', 'vendor'], files })
  }
  const note = (text: string) => Buffer.from(text, 'utf8')
  const shutOff =
    'Where to shut off\n\nWater: valve W3 behind the north door, red wheel, clockwise.\nGas for the burners: lever G1 outside, left of the meter.\nSeawater: never without a word to the control room; the tanks have twenty minutes.\n'
  put({
    on: 'places',
    id: place('TID').id!,
    kind: 'other',
    title: 'Where to shut off, Tidehall',
    audience: ['technician', 'vendor'],
    files: [{ days: 330, name: 'shut-off.txt', content: note(shutOff), shows: 'text', inside: shutOff }],
  })
  const lodging =
    'Before you report a fault\n\nHot water: the boiler fills again within forty minutes.\nNo power in the studio: the breaker is in the wardrobe; press it once.\nHeating: it lowers itself from 23:00 to 05:30.\n'
  put({
    on: 'places',
    id: place('GAN').id!,
    kind: 'other',
    title: 'Gannet Court: before you report',
    audience: ['reporter', 'technician'],
    files: [{ days: 250, name: 'before-you-report.txt', content: note(lodging), shows: 'text', inside: lodging }],
  })
}

const MANUAL: [string, string[]][] = [
  [
    'Starting and stopping',
    ['Never start with the condenser pump off.', 'Wait five minutes between two starts; the oil has to return.', 'Stop by the panel, not by the main switch.'],
  ],
  [
    'Alarms',
    [
      'A12 high pressure: look at the seawater strainer first, then at the condenser pump.',
      'A17 low pressure: charge or expansion valve.',
      'A31 oil level: stop, call the maker.',
    ],
  ],
  [
    'Care',
    [
      'Strainer every two weeks, condenser tubes every year.',
      'Leak check as the charge asks for, with a record.',
      'Vibration of the compressor under 4.5 mm/s.',
    ],
  ],
]

/** Adds a document with its versions and what the timeline says of them. */
function keeper(world: World) {
  const { now } = world
  const at = (days: number) => new Date(now.getTime() + days * DAY)
  const day = (days: number | undefined) => (days === undefined ? null : at(days).toISOString().slice(0, 10))
  const maren = world.rows.accounts.find((row) => row.email.startsWith('maren.quill'))!
  const by = { actorId: maren.id!, actorName: 'Maren Quill' }
  return ({ on, id, kind, title, from, until, remind, audience = [], files }: Spec): void => {
    const newest = files.at(-1)!
    const document = world.add('documents', {
      on,
      recordId: id,
      kind,
      title,
      validFrom: day(from),
      validUntil: day(until),
      remindDays: remind ?? null,
      // What is due already was told of when it became so.
      remindedOf: until !== undefined && remind !== undefined && until <= remind ? day(until) : null,
      audience,
      words: documentWords(title, newest.name, newest.inside ?? null),
      addedBy: maren.id!,
      version: files.length,
    })
    const siteId =
      on === 'places' ? world.rows.places.find((row) => row.id === id)!.siteId : on === 'assets' ? world.rows.assets.find((row) => row.id === id)!.siteId : null
    if (document.remindedOf)
      world.add('events', {
        at: new Date(now.getTime() + (until! - remind!) * DAY),
        kind: 'document.ending',
        siteId,
        register: on as 'assets',
        recordId: id,
        actorId: null,
        actorName: 'The clock',
        details: { title, documentId: document.id, until: document.remindedOf, called: title },
      })
    files.forEach(({ days, name, content, shows, thumb }, index) => {
      const moment = at(-Math.max(1, days))
      const stored = world.add('storedFiles', { bytes: content.length, checksum: createHash('sha256').update(content).digest('hex'), at: moment })
      world.put('storedPieces', { fileId: stored.id, position: 0, content })
      const mime = { pdf: 'application/pdf', text: 'text/plain', picture: 'image/jpeg' }[shows]
      const kept = { documentId: document.id, number: index + 1, name, mime, shows, bytes: content.length, storedId: stored.id, thumb: thumb ?? null }
      world.add('documentFiles', { ...kept, byName: 'Maren Quill', at: moment })
      const about = { at: moment, siteId, register: on as 'assets', recordId: id, ...by }
      const details = { title, documentId: document.id }
      if (index) world.add('events', { ...about, kind: 'document.version', details: { ...details, number: index + 1 } })
      else world.add('events', { ...about, kind: 'document.add', details })
    })
  }
}
