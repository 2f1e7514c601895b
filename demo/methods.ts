import { PLAIN_STEP } from '#core/methods'
import type { HazardLine, Leaves, MethodContent, MethodStep, Permit } from '#core/methods'
import { isFinished, isOver } from '#core/orders'
import type { OrderKind } from '#core/orders'
import type { World } from './world'

interface Spec {
  code: string
  name: string
  kind: OrderKind | null
  classCode?: string
  category?: string
  trade: string
  leaves?: Leaves
  people?: number
  skills?: string[]
  minutes: number
  steps: (string | MethodStep)[]
  parts?: [code: string, quantity: string][]
  tools?: string[]
  hazards?: [hazard: string, control: string, permit?: Permit][]
  /** Of finished work like it, one in so many was done another way. */
  missed?: number
}

const step = (text: string, more: Partial<MethodStep> = {}): MethodStep => ({ ...PLAIN_STEP, text, after: null, ...more })
const measured = (text: string, unit: string, least: number | null, most: number | null, more: Partial<MethodStep> = {}) =>
  step(text, { kind: 'measured', unit, least, most, ...more })
const photo = (text: string) => step(text, { kind: 'photo' })
const answer = (text: string, ...choices: string[]) => step(text, { kind: 'choice', choices })
const first = (text: string) => step(text, { first: true })

/** How the station does what it does often. Invented, as are the values. */
const METHODS: Spec[] = [
  {
    code: 'M-COLD-1',
    name: 'Cold room service',
    kind: 'preventive',
    classCode: 'D3030',
    category: 'coldroom',
    trade: 'HVAC and refrigeration',
    leaves: 'ready',
    minutes: 110,
    missed: 7,
    skills: ['Refrigerant handling'],
    steps: [
      first('Tell the keeper of the samples two days before'),
      measured('Temperature before', '°C', -30, 8),
      'Clean the condenser and the drain pan',
      measured('Suction pressure', 'bar', 1.2, 3.5),
      measured('Head pressure', 'bar', 10, 19),
      'Look over the door seal and the heater',
      measured('Temperature afterwards', '°C', -30, 8, { after: 2 }),
    ],
    parts: [['HV-202', '1']],
    tools: ['Gauge set', 'Leak detector'],
    hazards: [['Refrigerant under pressure', 'Gloves and goggles; nobody else in the room', undefined]],
  },
  {
    code: 'M-FRZ-1',
    name: 'Freezer service, −80 °C',
    kind: 'preventive',
    classCode: 'E1090',
    category: 'freezer',
    trade: 'HVAC and refrigeration',
    leaves: 'ready',
    minutes: 70,
    missed: 9,
    steps: [
      first('Agree with the laboratory where its samples stand meanwhile'),
      measured('Temperature before', '°C', -86, -72),
      'Take the ice off the seals',
      'Clean the filter of the condenser',
      'Try the alarm; the desk confirms it',
      measured('Temperature an hour later', '°C', -86, -75),
    ],
    tools: ['Ice scraper of plastic', 'Thermometer with probe'],
    hazards: [['Cold burns', 'Insulated gloves', undefined]],
  },
  {
    code: 'M-PUMP-1',
    name: 'Seawater pump and skimmer service',
    kind: 'preventive',
    classCode: 'D2090',
    category: 'seawater',
    trade: 'Life support',
    leaves: 'needs_cleaning',
    minutes: 95,
    missed: 6,
    steps: [
      'Switch to the standby pump',
      measured('Flow before', 'l/min', 40, 220),
      'Open, clean and look over the impeller',
      answer('State of the seal', 'Good', 'Worn', 'Leaking'),
      measured('Flow afterwards', 'l/min', 60, 220, { after: 2 }),
      photo('Photo of the closed pump'),
    ],
    parts: [['LS-401', '1']],
    tools: ['Bucket and mop', 'Strap wrench'],
    hazards: [
      ['Seawater near electricity', 'Isolate and lock off before it is opened', 'isolation'],
      ['Slippery floor', 'Barrier and sign', undefined],
    ],
  },
  {
    code: 'M-GEN-1',
    name: 'Standby generator test run',
    kind: 'preventive',
    classCode: 'D5090',
    trade: 'Electrical',
    leaves: 'ready',
    minutes: 75,
    missed: 14,
    steps: [
      first('Announce the test to the laboratories'),
      measured('Oil level', '%', 50, 100),
      measured('Fuel', 'l', 400, null),
      measured('Voltage under load', 'V', 220, 240),
      measured('Hours on the meter', 'h', 0, null),
    ],
    hazards: [['Starts by itself', 'Lock off the automatic start before anything is opened', 'isolation']],
  },
  {
    code: 'M-FUME-1',
    name: 'Fume cupboard face velocity',
    kind: 'preventive',
    classCode: 'E1020',
    trade: 'HVAC and refrigeration',
    leaves: 'ready',
    minutes: 45,
    missed: 7,
    steps: [
      'See that it is empty and clean',
      measured('Face velocity, mean of nine points', 'm/s', 0.4, 0.6),
      answer('Alarm', 'Sounds', 'Silent'),
      photo('Photo of the label with the new date'),
    ],
    tools: ['Anemometer'],
  },
  {
    code: 'M-LIFT-1',
    name: 'Lift service by the maker',
    kind: 'preventive',
    classCode: 'D1010',
    category: 'lift',
    trade: 'Lifts',
    minutes: 150,
    missed: 9,
    steps: [
      first('Put up the notice at the doors'),
      'Go along with the fitter',
      answer('Result on the certificate', 'Passed', 'Passed with remarks', 'Failed'),
      photo('Photo of the certificate'),
    ],
    hazards: [['Open shaft', 'Barriers on every floor', 'height']],
  },
  {
    code: 'M-DOOR-1',
    name: 'Door and lock inspection',
    kind: 'preventive',
    classCode: 'C1020',
    category: 'door',
    trade: 'Locks and doors',
    leaves: 'ready',
    minutes: 25,
    missed: 8,
    steps: ['Closes and latches by itself', 'Hinges and screws', answer('Lock', 'Turns freely', 'Stiff', 'Broken')],
  },
  {
    code: 'M-COIL-1',
    name: 'Fan coil not cooling',
    kind: 'repair',
    classCode: 'D3050',
    category: 'heat',
    trade: 'HVAC and refrigeration',
    leaves: 'ready',
    minutes: 65,
    missed: 3,
    steps: [
      measured('Room temperature', '°C', null, 26),
      'Filter and belt',
      answer('Valve', 'Opens', 'Stuck', 'No signal'),
      measured('Air from the grille', '°C', 8, 16),
    ],
    parts: [
      ['HV-201', '1'],
      ['HV-202', '1'],
    ],
    tools: ['Step ladder'],
    hazards: [['Turning fan', 'Isolate before the cover comes off', 'isolation']],
  },
  {
    code: 'M-LOCK-1',
    name: 'Lock cylinder exchanged',
    kind: 'repair',
    classCode: 'C1020',
    category: 'door',
    trade: 'Locks and doors',
    leaves: 'ready',
    minutes: 35,
    missed: 2,
    steps: [first('Ask the key holder for the number of the key'), 'Exchange the cylinder', 'Try every key of the group', 'Hand the old cylinder to the store'],
    parts: [['DR-502', '1']],
  },
  {
    code: 'M-TAP-1',
    name: 'Tap or valve leaks',
    kind: 'repair',
    classCode: 'D2010',
    category: 'water',
    trade: 'Plumbing',
    leaves: 'needs_cleaning',
    minutes: 40,
    missed: 2,
    steps: ['Close the stop valve', 'Exchange the cartridge', 'Open slowly and look for five minutes'],
    parts: [['PL-301', '1']],
    tools: ['Wet vacuum'],
    hazards: [['Hot water', 'Let the pipe cool', undefined]],
  },
  {
    code: 'M-LAMP-1',
    name: 'Lamps exchanged at height',
    kind: null,
    category: 'light',
    trade: 'Electrical',
    leaves: 'ready',
    people: 2,
    skills: ['Work at height'],
    minutes: 50,
    steps: [first('Agree on a time with whoever works below'), 'Isolate and prove dead', 'Exchange the lamps', 'Take the old ones to the store'],
    parts: [['EL-101', '2']],
    tools: ['Scaffold tower'],
    hazards: [
      ['Fall from the tower', 'Two people; tower by the card', 'height'],
      ['Electric shock', 'Isolate, lock, prove dead', 'isolation'],
    ],
  },
  {
    code: 'M-WALL-1',
    name: 'Wall made good and painted',
    kind: 'improvement',
    category: 'paint',
    trade: 'Painting',
    leaves: 'needs_cleaning',
    minutes: 180,
    steps: ['Cover what stands there', 'Fill and sand', 'First coat', step('Second coat', { after: 2 }), photo('Photo when dry')],
    parts: [['GE-602', '5']],
  },
  {
    code: 'M-DRAIN-1',
    name: 'Blocked drain cleared',
    kind: 'repair',
    category: 'water',
    trade: 'Plumbing',
    leaves: 'needs_cleaning',
    minutes: 55,
    steps: [
      'Take off the trap',
      'Clear by hand, then by machine',
      answer('What it was', 'Sand', 'Paper', 'Grease', 'Roots', 'Something else'),
      'Flush for five minutes',
    ],
    parts: [['PL-304', '1']],
    tools: ['Drain machine'],
    hazards: [['Foul water', 'Gloves, goggles, wash afterwards', undefined]],
  },
]

/** The library of methods, where it was used before, and what is planned of the work that is open. */
export function makeMethods(world: World): void {
  const { rows } = world
  const trade = (name: string) => rows.trades.find((one) => one.name === name)!.id!
  const category = (code: string | undefined) => rows.categories.find((one) => one.code === code)?.id ?? null
  const part = (code: string) => rows.parts.find((one) => one.code === code)!.id!
  const lent = (name: string) => rows.equipment.find((one) => one.name === name)?.id ?? null
  const yusuf = rows.accounts.find((one) => one.email.startsWith('yusuf'))!.id!
  const written = new Date(world.now.getTime() - 500 * 86_400_000)
  const classOf = new Map(rows.assets.map((asset) => [asset.id!, asset.classCode]))
  const made = METHODS.map((spec) => {
    const content: MethodContent = {
      steps: spec.steps.map((one) => (typeof one === 'string' ? step(one) : one)),
      labour: [{ tradeId: trade(spec.trade), people: spec.people ?? 1, minutes: spec.minutes, ...(spec.skills ? { skills: spec.skills } : {}) }],
      parts: (spec.parts ?? []).map(([code, quantity]) => ({ partId: part(code), quantity })),
      tools: (spec.tools ?? []).map((text) => ({ text, equipmentId: lent(text) })),
      hazards: (spec.hazards ?? []).map(([hazard, control, permit]): HazardLine => ({ hazard, control, permit: permit ?? null })),
    }
    const method = world.add('methods', {
      code: spec.code,
      name: spec.name,
      kind: spec.kind,
      tradeId: trade(spec.trade),
      categoryId: category(spec.category),
      classCode: spec.classCode ?? null,
      leaves: spec.leaves ?? null,
      note: null,
      edition: 1,
      searchText: `${spec.code} ${spec.name}`.toLowerCase().replace(/[^a-z0-9]+/g, ' '),
    })
    world.add('methodEditions', { methodId: method.id, edition: 1, content, note: null, at: written, by: yusuf })
    return { spec, method, content }
  })
  const given = (orderId: number, { method }: (typeof made)[number], at: Date, by: number) =>
    world.add('orderMethods', { orderId, methodId: method.id, edition: 1, at, by })
  const maren = rows.accounts.find((one) => one.email.startsWith('maren.quill'))!.id!

  // What was finished: one in a few was done another way.
  let nth = 0
  for (const order of rows.orders) {
    if (!isFinished(order.state) || order.discardedAt) continue
    const fitting = made.find(({ spec }) => spec.missed && spec.kind === order.kind && spec.classCode === classOf.get(order.assetId ?? 0))
    if (!fitting || ++nth % fitting.spec.missed! === 0) continue
    given(order.id!, fitting, order.createdAt, maren)
  }
  planOpenWork(world, made, maren)
}

type Made = { spec: Spec; method: { id: number }; content: MethodContent }

/** Of what is open, a part is planned: with steps that are done, one that is somebody else's, and some that come first. */
function planOpenWork(world: World, made: Made[], maren: number): void {
  const { rows } = world
  const petra = rows.accounts.find((one) => one.email.startsWith('petra.lindqvist'))!.id!
  const bram = rows.accounts.find((one) => one.email.startsWith('bram.oyelaran'))!.id!
  const open = rows.orders.filter((order) => !isOver(order.state) && !isFinished(order.state) && !order.discardedAt)
  open.forEach((order, index) => {
    const fitting = made.find(({ method, spec }) => {
      const row = rows.methods.find((one) => one.id === method.id)!
      return (spec.kind === null || spec.kind === order.kind) && row.categoryId !== null && row.categoryId === order.categoryId
    })
    // Drafts are left to be planned by whoever tries it.
    if (!fitting || order.state === 'draft' || index % 3 === 2) return
    const at = new Date(order.createdAt.getTime() + 40 * 60_000)
    const applied = world.add('orderMethods', { orderId: order.id!, methodId: fitting.method.id, edition: 1, at, by: maren })
    const { steps, ...lines } = fitting.content
    world.put('orderPlans', { orderId: order.id!, ...lines, version: 1 })
    const begun = order.state === 'on_job' || order.state === 'on_hold'
    const ids: number[] = []
    for (const [place, { after, ...fields }] of steps.entries()) {
      const gone = order.state !== 'ready' && order.state !== 'to_approve'
      const done = (fields.first && gone) || (begun && place < 2 && fields.kind !== 'photo')
      const saved = world.add('orderSteps', {
        ...fields,
        orderId: order.id!,
        appliedId: applied.id,
        position: place + 1,
        afterId: after === null ? null : ids[after]!,
        assigneeId: fields.first ? petra : null,
        state: done ? 'done' : 'open',
        value: done ? valueOf(fields) : null,
        outside: false,
        note: null,
        photoId: null,
        doneBy: done ? (fields.first ? petra : bram) : null,
        doneAt: done ? new Date(at.getTime() + 60 * 60_000) : null,
      })
      ids.push(saved.id)
    }
  })
}

function valueOf({ kind, least, most, choices }: Omit<MethodStep, 'after'>): string | null {
  if (kind === 'choice') return choices[0]!
  if (kind !== 'measured') return null
  return String(least !== null && most !== null ? Math.round(((least + most) / 2) * 10) / 10 : (least ?? most ?? 0))
}
