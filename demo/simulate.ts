import { addWorkingTime, chargedHours, formatNumber, lineAmount, percentOf } from '#core/kit'
import { chargedMinutes, chargesOf, journalOf, labourCost, rateAt } from '#core/ledger'
import type { CostLine } from '#core/ledger'
import { CLOSE_SHARE, setTarget, stopTarget } from '#core/orders'
import type { HoldReason, OrderKind, OrderMove, OrderState } from '#core/orders'
import { priorityOf, PRIORITIES } from '#core/requests'
import type { Priority } from '#core/requests'
import type { EventKind } from '#core/events'
import { DateTime } from 'luxon'
import type { Crew } from './people'
import { inOwnWords } from './phrases'
import { tradeId } from './people'
import type { SpaceSpec } from './places'
import { LATE_VENDOR } from './register'
import type { AssetSpec } from './register'
import type { Trouble } from './troubles'
import type { World } from './world'

export interface Setting {
  world: World
  spaces: SpaceSpec[]
  assets: AssetSpec[]
  crew: Crew[]
  staff: Map<string, number>
  numbers: { request: number; order: number; bill: number; purchase: number }
}

export interface Case {
  trouble: Trouble
  space: SpaceSpec
  asset: AssetSpec | null
  receivedAt: Date
  /** How far it has come: the state it is left in. */
  upTo: OrderState | 'new' | 'taken_up' | 'asked' | 'declined'
  kind?: OrderKind
  holdReason?: HoldReason
  /** Several payers, in basis points by payer code. */
  shares?: [string, number][]
  wish?: string
  /** When somebody is to come, when it must be at that time. */
  plannedStart?: Date
  /** As the reporter put it, where that is not as the desk has it. */
  words?: { summary: string; description: string }
  /** The desk named the fault as it names it always. */
  corrected?: boolean
  /** Who does it, when it must be somebody in particular. */
  technicianId?: number
}

const MINUTE = 60_000
const after = (at: Date, minutes: number) => new Date(at.getTime() + minutes * MINUTE)
const REACHED: OrderState[] = ['draft', 'to_approve', 'ready', 'dispatched', 'on_job', 'done', 'checked', 'closed']

/** Plays one case from the report to where it is left, writing every event on the way. */
export function play(setting: Setting, spec: Case): { orderId: number | null; requestId: number | null } {
  const request = spec.kind === 'preventive' || spec.kind === 'inspection' ? null : report(setting, spec)
  if (['new', 'taken_up', 'asked', 'declined'].includes(spec.upTo)) return { orderId: null, requestId: request!.id }
  const order = makeOrder(setting, spec, request)
  const reached = REACHED.indexOf(spec.upTo === 'on_hold' ? 'ready' : spec.upTo === 'cancelled' ? 'draft' : (spec.upTo as OrderState))
  if (reached >= 1) order.submit()
  if (reached >= 2) order.approve()
  if (reached >= 3) order.dispatch()
  if (reached >= 4) order.work(reached >= 5)
  if (reached >= 6) order.check()
  if (reached >= 7) order.post()
  if (spec.upTo === 'on_hold') order.hold(spec.holdReason ?? 'part')
  if (spec.upTo === 'cancelled') order.cancel()
  return { orderId: order.id, requestId: request?.id ?? null }
}

type RequestRow = World['rows']['requests'][number] & { id: number }

function report({ world, staff, numbers }: Setting, spec: Case): RequestRow {
  const { rng } = world
  const { trouble, space, asset, receivedAt } = spec
  const near = world.rows.people.filter((person) => person.placeId === space.id)
  const occupants = near.length ? near : world.rows.people.slice(21)
  const person = rng.pick(occupants)
  const place = world.rows.places.find((row) => row.id === space.id)!
  const coordinator = rng.pick(['Maren Quill', 'Tobias Achterberg'])
  const who = { actorId: staff.get(coordinator)!, actorName: coordinator }
  const decided = !['new', 'taken_up', 'asked'].includes(spec.upTo)
  const takenUpAt = spec.upTo === 'new' ? null : addWorkingTime(receivedAt, rng.int(4, 45), world.calendar)
  const decidedAt = decided ? after(takenUpAt!, rng.int(2, 15)) : null
  const verdict = priorityOf(trouble.consequence, trouble.urgency)
  const byCall = rng.chance(0.35)
  const category = world.rows.categories.find((row) => row.code === trouble.category)!
  const declined = spec.upTo === 'declined'
  const written = spec.words ?? { summary: trouble.summary, description: trouble.description }
  const summary = decided && spec.corrected ? trouble.summary : written.summary
  const request = world.add('requests', {
    number: formatNumber('R', numbers.request++),
    siteId: place.siteId,
    state: declined ? 'declined' : spec.upTo === 'asked' ? 'asked' : decided ? 'accepted' : 'new',
    channel: byCall ? 'call' : space.id % 7 === 0 ? 'email' : 'counter',
    summary,
    description: written.description,
    writtenSummary: written.summary,
    writtenDescription: written.description,
    reporterId: person.id!,
    reporterName: person.name,
    reporterEmail: person.email,
    reporterPhone: person.phone,
    placeId: space.id,
    assetId: decided ? (asset?.id ?? null) : null,
    categoryId: decided ? category.id! : null,
    consequence: decided ? trouble.consequence : null,
    urgency: decided ? trouble.urgency : null,
    priority: decided ? verdict.priority : null,
    prioritySentence: decided ? verdict.sentence : null,
    wish: spec.wish ?? (rng.chance(0.4) ? 'As soon as you can' : null),
    payerId: world.rows.payers.find((payer) => payer.code === space.payer)!.id!,
    receivedAt,
    takenUpAt,
    takenUpBy: takenUpAt ? who.actorId : null,
    decidedAt,
    triageCloseAt: addWorkingTime(receivedAt, 60 * CLOSE_SHARE, world.calendar),
    triageDueAt: addWorkingTime(receivedAt, 60, world.calendar),
    question: spec.upTo === 'asked' ? 'Which one exactly, counted from the door, and can we come in on Thursday morning?' : null,
    declineReason: declined ? 'This belongs to the tenant’s own equipment; their supplier looks after it.' : null,
    linkHash: rng.hex(64),
    linkNonce: rng.hex(32),
    linkExpiresAt: after(receivedAt, 400 * 1440),
  })
  const tell = (kind: EventKind, at: Date, by: { actorId: number | null; actorName: string }, from: string | null, to: string, more: object = {}) =>
    world.add('events', { at, kind, siteId: place.siteId, requestId: request.id, ...by, fromState: from, toState: to, ...more })
  tell('request.report', receivedAt, byCall ? who : { actorId: null, actorName: person.name }, null, 'new', {
    details: { channel: byCall ? 'call' : 'counter' },
  })
  if (takenUpAt) tell('request.takeUp', takenUpAt, who, 'new', 'new')
  if (summary !== written.summary)
    tell('request.edit', after(takenUpAt!, 1), who, 'new', 'new', { details: { fields: { summary: { from: written.summary, to: summary } } } })
  if (spec.upTo === 'asked')
    tell('request.ask', after(takenUpAt!, 3), who, 'new', 'asked', { reason: request.question, details: { label: 'Ask the reporter' } })
  if (declined) tell('request.decline', decidedAt!, who, 'new', 'declined', { reason: request.declineReason, details: { label: 'Decline' } })
  return request
}

/** Somebody else tells the same, in words of their own, before it is mended: the desk joins it to the first. */
export function tellTwice({ world, staff, numbers }: Setting, spec: Case, mainId: number): void {
  const { words: rng, calendar } = world
  const { id: _, ...main } = world.rows.requests.find((row) => row.id === mainId)!
  const receivedAt = after(main.decidedAt!, rng.int(3, 120))
  const others = world.rows.people.filter((person) => person.email && person.id !== main.reporterId && person.payerId)
  const near = others.filter((person) => person.placeId === spec.space.id)
  const person = rng.pick(near.length ? near : others)
  const takenUpAt = addWorkingTime(receivedAt, rng.int(3, 30), calendar)
  const decidedAt = after(takenUpAt, rng.int(1, 6))
  const coordinator = rng.pick(['Maren Quill', 'Tobias Achterberg'])
  const desk = { actorId: staff.get(coordinator)!, actorName: coordinator }
  const { summary, description } = inOwnWords(rng, spec.trouble.summary, spec.trouble.description)
  const row = world.add('requests', {
    ...main,
    number: formatNumber('R', numbers.request++),
    state: 'joined',
    channel: rng.chance(0.5) ? 'counter' : 'email',
    summary,
    description,
    writtenSummary: summary,
    writtenDescription: description,
    reporterId: person.id!,
    reporterName: person.name,
    reporterEmail: person.email,
    reporterPhone: person.phone,
    assetId: null,
    joinedToId: mainId,
    wish: null,
    receivedAt,
    takenUpAt,
    takenUpBy: desk.actorId,
    decidedAt,
    triageCloseAt: addWorkingTime(receivedAt, 60 * CLOSE_SHARE, calendar),
    triageDueAt: addWorkingTime(receivedAt, 60, calendar),
    linkHash: rng.hex(64),
    linkNonce: rng.hex(32),
    linkExpiresAt: after(receivedAt, 400 * 1440),
  })
  const tell = (kind: EventKind, at: Date, by: { actorId: number | null; actorName: string }, from: string | null, to: string, details?: object) =>
    world.add('events', { at, kind, siteId: row.siteId, requestId: row.id, ...by, fromState: from, toState: to, details: details as never })
  tell('request.report', receivedAt, { actorId: null, actorName: person.name }, null, 'new', { channel: row.channel })
  tell('request.takeUp', takenUpAt, desk, 'new', 'new')
  tell('request.join', decidedAt, desk, 'new', 'joined', { label: 'Join to another', to: main.number })
}

/** An order that can be taken through its moves; the clock goes on with each of them. */
function makeOrder(setting: Setting, spec: Case, request: RequestRow | null) {
  const { world, staff, numbers, crew } = setting
  const { rng, calendar } = world
  const { trouble, space, asset } = spec
  const place = world.rows.places.find((row) => row.id === space.id)!
  const created = request?.decidedAt ?? spec.receivedAt
  const coordinatorId = request?.takenUpBy ?? staff.get('Maren Quill')!
  const nameOf = (accountId: number) => [...staff].find(([, id]) => id === accountId)?.[0] ?? crew.find((one) => one.accountId === accountId)!.name
  const verdict = request
    ? { priority: request.priority as Priority, sentence: request.prioritySentence! }
    : { priority: 'routine' as const, sentence: 'Routine, because it is planned work.' }
  const rule = world.rows.targetRules.find((row) => row.siteId === place.siteId && row.priority === verdict.priority)!
  const target = setTarget(rule, spec.receivedAt, calendar)
  const vendor = trouble.vendor ? world.rows.vendors.find((row) => row.name === trouble.vendor)! : null
  const able = crew.filter((one) => one.trades.includes(trouble.trade))
  const technician = vendor
    ? null
    : spec.technicianId
      ? crew.find((one) => one.technicianId === spec.technicianId)!
      : rng.pick(able.length ? able : crew.filter((one) => one.trades.includes('general')))
  const length = rng.int(...trouble.minutes)
  const estimate =
    Math.ceil((vendor ? vendor.callOutMinor! + (vendor.perHourMinor! * length) / 60 : ((technician!.rate * length) / 60) * 1.2 + 2_000) / 500) * 500
  const approver = estimate <= 250_000 ? 'Ines Ferrall' : 'Osric Vane'
  const draft = spec.upTo === 'draft'
  const row = world.add('orders', {
    number: formatNumber('W', numbers.order++),
    siteId: place.siteId,
    state: 'draft',
    kind: spec.kind ?? 'repair',
    summary: request?.summary ?? trouble.summary,
    description: request?.description ?? trouble.description,
    placeId: space.id,
    assetId: asset?.id ?? null,
    categoryId: world.rows.categories.find((category) => category.code === trouble.category)!.id!,
    tradeId: tradeId(world, trouble.trade),
    teamId: draft ? null : world.rows.teams[technician ? world.rows.technicians.find((one) => one.id === technician.technicianId)!.teamId - 1 : 1]!.id!,
    leadId: coordinatorId,
    supervisorId: draft ? null : staff.get('Ines Ferrall')!,
    consequence: request?.consequence ?? null,
    urgency: request?.urgency ?? null,
    priority: verdict.priority,
    priorityRank: PRIORITIES.indexOf(verdict.priority) + 1,
    prioritySentence: verdict.sentence,
    estimateMinor: draft ? null : estimate,
    contactName: request?.reporterName ?? null,
    contactPhone: request?.reporterPhone ?? null,
    access: null,
    createdAt: created,
    createdBy: coordinatorId,
    targetClock: target.clock,
    targetStartAt: target.startAt,
    responseDueAt: target.responseDueAt,
    closeAt: target.closeAt,
    completionDueAt: target.completionDueAt,
  })
  const shares = spec.shares ?? [[space.payer, 10_000]]
  const payers = shares.map(([code, shareBp]) => ({ payer: world.rows.payers.find((payer) => payer.code === code)!, shareBp }))
  payers.forEach(({ payer, shareBp }, position) => world.put('orderShares', { orderId: row.id, payerId: payer.id!, shareBp, position }))
  let clock = created
  let state: OrderState = 'draft'
  const costs: CostLine[] = []
  const tell = (kind: EventKind, by: { id: number | null; name: string }, from: string | null, to: string | null, more: object = {}) =>
    world.add('events', { at: clock, kind, siteId: row.siteId, orderId: row.id, actorId: by.id, actorName: by.name, fromState: from, toState: to, ...more })
  const go = (move: OrderMove, label: string, by: { id: number | null; name: string }, to: OrderState, more: { reason?: string; details?: object } = {}) => {
    tell(`order.${move}`, by, state, to, { reason: more.reason, details: { label, ...more.details } })
    state = to
    row.state = to
    row.version = (row.version ?? 1) + 1
  }
  const person = (id: number) => ({ id, name: nameOf(id) })
  const desk = person(coordinatorId)
  if (request) {
    world.put('requestOrders', { requestId: request.id, orderId: row.id })
    world.add('events', {
      at: created,
      kind: 'request.accept',
      siteId: row.siteId,
      requestId: request.id,
      orderId: row.id,
      actorId: desk.id,
      actorName: desk.name,
      fromState: 'new',
      toState: 'accepted',
      details: { label: 'Accept as a new order', order: row.number },
    })
  }
  tell('order.create', desk, null, 'draft', { details: request ? { request: request.number } : { plan: true } })
  let visit: (World['rows']['visits'][number] & { id: number }) | null = null
  const worker = vendor ? { id: null, name: vendor.name } : { id: technician!.accountId, name: technician!.name }

  return {
    id: row.id,
    submit() {
      clock = after(clock, rng.int(1, 12))
      world.add('approvals', { orderId: row.id, amountMinor: estimate, askedAt: clock, askedBy: coordinatorId })
      row.submittedBy = coordinatorId
      go('submit', 'Submit for approval', desk, 'to_approve')
    },
    approve() {
      clock = addWorkingTime(clock, rng.int(3, 90), calendar)
      const approval = world.rows.approvals.at(-1)!
      Object.assign(approval, { decidedAt: clock, decidedBy: staff.get(approver)!, verdict: 'approved' })
      go('approve', 'Approve', person(staff.get(approver)!), 'ready')
    },
    dispatch() {
      clock = addWorkingTime(clock, rng.int(2, 40), calendar)
      const ahead = { emergency: 5, urgent: rng.int(10, 200), routine: rng.int(60, 1500), deferred: rng.int(400, 4000) }[verdict.priority]
      let start = addWorkingTime(clock, vendor ? ahead + 300 : ahead, calendar)
      // What is on its way or under way now is planned around now, not in a past it never had.
      if (spec.upTo === 'dispatched') start = addWorkingTime(world.now, rng.int(5, 600), calendar)
      if (spec.upTo === 'done' || spec.upTo === 'checked') start = addWorkingTime(clock, rng.int(20, 240), calendar)
      if (spec.upTo === 'on_job') start = after(world.now, -rng.int(20, 70))
      if (spec.plannedStart) start = spec.plannedStart
      start = roundTo(start, 15)
      if (start <= clock) clock = after(start, -30)
      visit = world.add('visits', {
        orderId: row.id,
        technicianId: technician?.technicianId ?? null,
        vendorId: vendor?.id ?? null,
        kind: 'first',
        state: 'planned',
        plannedStart: start,
        plannedEnd: after(start, Math.ceil(length / 15) * 15),
        ...(vendor && spec.upTo !== 'dispatched' ? { answer: 'accepted', answeredAt: clock } : {}),
      })
      if (vendor)
        world.add('vendorPasses', { visitId: visit.id, nonce: rng.hex(32), tokenHash: rng.hex(64), createdAt: clock, expiresAt: after(start, 14 * 1440) })
      row.respondedAt = clock
      go('dispatch', 'Dispatch', desk, 'dispatched', {
        details: {
          technicianIds: technician ? [technician.technicianId] : [],
          vendorId: vendor?.id ?? null,
          visitId: visit.id,
          start: start.toISOString(),
          end: visit.plannedEnd.toISOString(),
        },
      })
    },
    work(toTheEnd: boolean) {
      const late = trouble.vendor === LATE_VENDOR ? rng.int(90, 400) : rng.int(-5, 25)
      clock = spec.upTo === 'on_job' ? visit!.plannedStart : after(visit!.plannedStart, late)
      Object.assign(visit!, { state: 'on_site', startedAt: clock })
      const stretches = (
        [
          ['travel', rng.int(4, 15)],
          ['work', length],
        ] as const
      ).map(([kind, minutes]) => ({ kind, minutes }))
      for (const { kind, minutes } of stretches) {
        const start = clock
        const running = !toTheEnd && kind === 'work'
        if (kind === 'travel') go('start', 'Start', worker, 'on_job')
        tell('field.stint', worker, null, null, { visitId: visit!.id, details: { stint: kind } })
        clock = after(start, minutes)
        const terms = technician ? world.rows.technicianRates.filter((rate) => rate.technicianId === technician.technicianId) : []
        const local = DateTime.fromJSDate(start, { zone: calendar.zone })
        const onShift = technician?.shift[local.weekday - 1]?.some((stretch) => stretch.from <= local.toFormat('HH:mm') && local.toFormat('HH:mm') < stretch.to)
        const rate = technician
          ? rateAt(
              terms.map((term) => ({ from: term.fromAt, normalPerHour: term.normalPerHour, overtimePerHour: term.overtimePerHour })),
              start,
            )
          : null
        const perHour = rate ? (onShift ? rate.normalPerHour : rate.overtimePerHour) : null
        const charged = chargedMinutes(start, clock, technician ? 5 : 1)
        const cost = perHour === null ? 0 : labourCost(charged, perHour)
        const stint = world.add('stints', {
          visitId: visit!.id,
          orderId: row.id,
          technicianId: technician?.technicianId ?? null,
          runningTechnicianId: running ? (technician?.technicianId ?? null) : null,
          kind,
          startAt: start,
          endAt: running ? null : clock,
          minutes: running ? null : charged,
          perHourMinor: running ? null : perHour,
          costMinor: running ? null : cost,
        })
        if (technician && !running)
          costs.push({
            kind: 'labour',
            sourceId: stint.id,
            description: `${technician.name}, ${kind}`,
            quantity: chargedHours(charged),
            unit: 'h',
            unitCost: perHour!,
            cost,
            vendorId: null,
          })
      }
      if (!toTheEnd) return
      if (trouble.parts && !vendor) usePart()
      if (vendor) bill()
      Object.assign(visit!, { state: 'ended', endedAt: clock, result: 'done' })
      Object.assign(row, { symptom: trouble.symptom, cause: trouble.cause, fix: trouble.fix, finishedAt: clock })
      tell('field.leave', worker, null, null, { visitId: visit!.id, details: { result: 'done' } })
      go('finish', 'Finish', worker, 'done')
    },
    check() {
      clock = addWorkingTime(clock, rng.int(10, 300), calendar)
      go('check', 'Mark as checked', desk, 'checked')
    },
    post() {
      clock = addWorkingTime(clock, rng.int(30, 900), calendar)
      const clerk = person(staff.get('Petra Lindqvist')!)
      postCharges(setting, row, costs, payers, clock, clerk.id)
      row.closedAt = clock
      go('post', 'Post charges', clerk, 'closed')
    },
    hold(reason: HoldReason) {
      clock = addWorkingTime(clock, rng.int(10, 60), calendar)
      row.heldFrom = state
      row.holdReason = reason
      if (['part', 'access', 'weather'].includes(reason)) row.clockStoppedAt = stopTarget(target, clock).stoppedAt
      go('hold', 'Put on hold', desk, 'on_hold', {
        reason: {
          part: 'The seal kit is on order, due Friday.',
          access: 'The studio is occupied until Sunday.',
          vendor: 'They have not confirmed the day.',
          weather: 'Too much wind for the roof.',
          approval: 'The grant holder wants to see the estimate.',
          other: 'Waiting for the tide table.',
        }[reason],
      })
    },
    cancel() {
      clock = after(clock, rng.int(20, 300))
      row.closedAt = clock
      go('cancel', 'Cancel the order', desk, 'cancelled', {
        reason: rng.pick(['The reporter says it works again.', 'Done together with another order.', 'The room is being rebuilt next month.']),
      })
    },
  }

  function usePart() {
    const part = world.rows.parts.find((one) => one.code === trouble.parts)!
    const level = world.rows.stockLevels.find((one) => one.partId === part.id)!
    const quantity = String(rng.int(1, 2))
    // The store buys what it uses, so that years of issues never run below nothing.
    world.add('stockMovements', {
      storeId: level.storeId,
      partId: part.id!,
      kind: 'receipt',
      quantity,
      unitCostMinor: level.averageCostMinor,
      at: after(clock, -1440),
      by: staff.get('Petra Lindqvist')!,
    })
    const issued = world.add('stockMovements', {
      storeId: level.storeId,
      partId: part.id!,
      kind: 'issue',
      quantity: `-${quantity}`,
      unitCostMinor: level.averageCostMinor,
      orderId: row.id,
      visitId: visit!.id,
      at: clock,
      by: worker.id,
    })
    costs.push({
      kind: 'parts',
      sourceId: issued.id,
      description: part.name,
      quantity,
      unit: part.unit,
      unitCost: level.averageCostMinor,
      cost: lineAmount(quantity, level.averageCostMinor),
      vendorId: null,
    })
    tell('field.part', worker, null, null, { visitId: visit!.id, details: { part: part.name, quantity, unit: part.unit } })
  }

  function bill() {
    const entered = world.add('vendorBills', {
      orderId: row.id,
      visitId: visit!.id,
      vendorId: vendor!.id!,
      number: `B-${numbers.bill++}`,
      taxBp: 1350,
      enteredAt: clock,
    })
    const hours = chargedHours(Math.ceil(length / 30) * 30)
    for (const [description, quantity, unitPrice] of [
      ['Call-out', '1', vendor!.callOutMinor!],
      ['Work on site', hours, vendor!.perHourMinor!],
    ] as const) {
      const amount = lineAmount(quantity, unitPrice)
      const line = world.add('vendorBillLines', { billId: entered.id, description, quantity, unitPriceMinor: unitPrice, amountMinor: amount })
      costs.push({
        kind: 'vendor',
        sourceId: line.id,
        description: `${vendor!.name}: ${description}`,
        quantity,
        unit: 'pc',
        unitCost: unitPrice,
        cost: amount,
        vendorId: vendor!.id!,
      })
    }
    tell('vendor.bill', worker, null, null, {
      visitId: visit!.id,
      details: { number: entered.number, netMinor: costs.reduce((sum, line) => sum + line.cost, 0), lines: 2 },
    })
  }
}

type Payers = { payer: World['rows']['payers'][number]; shareBp: number }[]

function postCharges({ world }: Setting, order: World['rows']['orders'][number], costs: CostLine[], payers: Payers, at: Date, by: number): void {
  const month = DateTime.fromJSDate(at, { zone: world.calendar.zone }).toFormat('yyyy-LL')
  const markupOf = (line: CostLine) =>
    line.vendorId
      ? world.rows.vendors.find((vendor) => vendor.id === line.vendorId)!.markupBp!
      : world.rows.markups.find((row) => row.kind === line.kind)!.markupBp
  const charged = chargesOf(
    costs,
    payers.map(({ payer, shareBp }) => ({ payerId: payer.id!, shareBp, taxBp: payer.taxBp, ownCost: payer.kind === 'own' })),
    markupOf,
  )
  const posting = world.add('postings', { orderId: order.id!, siteId: order.siteId, kind: 'posting', round: 1, month, at, by })
  const billed = costs.filter((line) => line.vendorId)
  const net = billed.reduce((sum, line) => sum + line.cost, 0)
  const owed = billed.length ? [{ vendorId: billed[0]!.vendorId!, net, tax: percentOf(net, 1350) }] : []
  charged.forEach((charge, index) => {
    const { id: chargeId } = world.add('charges', {
      postingId: posting.id,
      orderId: order.id!,
      payerId: charge.payerId,
      month,
      ownCost: charge.ownCost,
      shareBp: payers[index]!.shareBp,
      netMinor: charge.net,
      taxBp: charge.taxBp,
      taxMinor: charge.tax,
      grossMinor: charge.gross,
    })
    for (const { line, cost, markupBp, net: lineNet } of charge.lines)
      world.add('chargeLines', {
        chargeId,
        kind: line.kind,
        sourceId: line.sourceId,
        description: line.description,
        quantity: line.quantity,
        unit: line.unit,
        unitCostMinor: line.unitCost,
        costMinor: cost,
        markupBp,
        netMinor: lineNet,
      })
  })
  for (const entry of journalOf(charged, owed))
    world.add('journalEntries', { postingId: posting.id, account: entry.account, debitMinor: entry.debit, creditMinor: entry.credit })
  for (const payable of owed)
    world.add('payables', { postingId: posting.id, orderId: order.id!, vendorId: payable.vendorId, netMinor: payable.net, taxMinor: payable.tax })
  if (!world.rows.periods.some((period) => period.month === month && period.siteId === order.siteId)) world.add('periods', { siteId: order.siteId, month })
}

function roundTo(at: Date, minutes: number): Date {
  return new Date(Math.ceil(at.getTime() / (minutes * MINUTE)) * minutes * MINUTE)
}
