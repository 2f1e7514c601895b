import { computed, ref, shallowRef } from 'vue'
import { rearrange } from '#contract/board'
import type { Board, BoardPerson, BoardVisit, Rearrangement, WaitingOrder } from '#contract/board'
import { dispatchOrder } from '#contract/dispatch'
import type { DispatchOrder } from '#contract/dispatch'
import { BOARD_STEP_MINUTES, conflictsOf, firstFit, isAsked, isBarred } from '#core/board'
import { waysOf } from '#core/travel'
import type { BoardJob, BoardTechnician, Conflict, Stretch } from '#core/board'
import { call, CallProblem, freshKey, serverNow, shortTime, spanTime, useUndo } from '#web/kit'

/** What is picked up: a visit that is planned, or an order that waits; and where it is held. */
export interface Held {
  number: string
  job: BoardJob
  visit: BoardVisit | null
  order: WaitingOrder | null
  /** Nobody for a vendor’s visit, of which only the time is moved. */
  technicianId: number | null
  at: Stretch
  /** Where it was when it was picked up. */
  was: { technicianId: number | null; at: Stretch } | null
  /** Its row on the Board. */
  row: string
}

type Changes = Omit<Rearrangement, 'siteId' | 'despite'>
/** A vendor is sent to work that waits. */
type Sent = Omit<DispatchOrder, 'technicianIds'> & { vendorId: number }
/** Something to be done that wants a reason first. */
interface Asked {
  what: Changes | Sent
  sentence: string
  conflicts: readonly string[]
}

export const stretchOf = ({ from, until }: { from: string; until: string }): Stretch => ({ from: new Date(from), until: new Date(until) })
export const jobOf = (one: BoardVisit | WaitingOrder): BoardJob => ({
  tradeId: one.tradeId,
  trade: one.trade,
  skills: one.skills,
  path: one.path,
  window: one.window && stretchOf(one.window),
  target: one.dueAt ? new Date(one.dueAt) : null,
  between: 'ready' in one ? one.ready : [],
})

/** Picking up, holding and putting down on the Board, by mouse, key or form alike, with what speaks against it and the way back. */
export function useHolding(siteId: () => number, board: () => Board, load: () => Promise<unknown>) {
  const undo = useUndo()
  const held = shallowRef<Held | null>(null)
  const asked = shallowRef<Asked | null>(null)
  const problem = ref('')
  const busy = ref(false)
  /** What takes back the last acts, the newest last. */
  const back = ref<{ what: Omit<Rearrangement, 'siteId'>; sentence: string }[]>([])

  const vendorOf = (row: string) => board().vendors.find(({ id }) => row === `v${id}`)
  const personOf = (id: number | null): BoardPerson | undefined => board().people.find((one) => one.id === id)
  /** Everybody as the rules see them, reckoned once for each reading of the Board and only for those who are looked at. */
  const crew = computed(() => {
    const found = new Map<number, Omit<BoardTechnician, 'visits'> & { visits: (BoardTechnician['visits'][number] & { id: number })[] }>()
    const { people } = board()
    return (id: number) => {
      const known = found.get(id)
      const person = known ? undefined : people.find((one) => one.id === id)
      if (!person) return known
      const made = {
        name: person.name,
        tradeIds: person.tradeIds,
        skills: person.skills,
        shifts: person.shifts.map(stretchOf),
        away: person.away.map(stretchOf),
        onCall: person.onCall.map(stretchOf),
        visits: person.visits
          .filter(({ state }) => state !== 'ended')
          .map((visit) => ({ ...stretchOf(visit), id: visit.id, number: visit.number, path: visit.path })),
      }
      found.set(id, made)
      return made
    }
  })
  /** Put together once for each reading of the Board. */
  const way = computed(() => waysOf(board().ways))
  /** What speaks against a job at a time with somebody of those shown. */
  function judge(one: BoardVisit | WaitingOrder, technicianId: number | null, at: Stretch): Conflict[] {
    const who = technicianId === null ? undefined : crew.value(technicianId)
    const visits = who && 'orderId' in one ? who.visits.filter(({ id }) => id !== one.id) : who?.visits
    return conflictsOf(jobOf(one), who ? { ...who, visits: visits! } : null, at, serverNow(), board().zone, way.value)
  }
  const conflicts = computed(() => (held.value ? judge(held.value.visit ?? held.value.order!, held.value.technicianId, held.value.at) : []))
  /** Of a row, what speaks against what is held there at the time it is held at; only those in sight ask. */
  const rowConflicts = computed(() => {
    const now = held.value
    if (!now || (now.visit && now.technicianId === null)) return null
    const found = new Map<string, Conflict[]>()
    return (row: string): Conflict[] | undefined => {
      if (!row.startsWith('t')) return undefined
      const known = found.get(row) ?? judge(now.visit ?? now.order!, Number(row.slice(1)), now.at)
      found.set(row, known)
      return known
    }
  })
  const says = computed(() => {
    const now = held.value
    if (!now) return ''
    const who = vendorOf(now.row)?.name ?? personOf(now.technicianId)?.name
    const what = conflicts.value.map(({ sentence }) => sentence).join(' ') || 'It fits.'
    return `${now.number}: ${[who, spanTime(now.at.from.toISOString(), now.at.until.toISOString())].filter(Boolean).join(', ')}. ${what}`
  })

  function takeVisit(visit: BoardVisit, row: string): void {
    if (visit.state !== 'planned') return undo.say(`${visit.number} is under way or over: only what is still to come can be moved.`, undefined, true)
    const technicianId = row.startsWith('t') ? Number(row.slice(1)) : null
    const at = stretchOf(visit)
    held.value = { number: visit.number, job: jobOf(visit), visit, order: null, technicianId, at, was: { technicianId, at }, row }
  }
  /** Held where it fits first; where it fits nowhere, with the first of those shown, now. */
  function takeOrder(order: WaitingOrder): void {
    if (order.state === 'on_hold') return undo.say(`${order.number} is on hold. Resume it first.`, undefined, true)
    const first = bestOf(order)
    if (first) held.value = { number: order.number, job: jobOf(order), visit: null, order, ...first, was: null, row: `t${first.technicianId}` }
  }
  function bestOf(order: WaitingOrder): { technicianId: number; at: Stretch } | null {
    const { people, zone } = board()
    const now = serverNow()
    const shown = people.flatMap(({ shifts }) => shifts.map(({ from }) => new Date(from))).reduce<Date | null>((a, b) => (a && a < b ? a : b), null)
    const since = shown && shown > now ? shown : now
    const fits = people.flatMap((person) => {
      const fit = firstFit(jobOf(order), crew.value(person.id)!, order.minutes, since, zone, way.value)
      return fit ? [{ technicianId: person.id, at: fit.at }] : []
    })
    fits.sort((a, b) => a.at.from.getTime() - b.at.from.getTime())
    if (fits[0]) return fits[0]
    const [person] = people
    const step = BOARD_STEP_MINUTES * 60_000
    const from = new Date(Math.ceil(since.getTime() / step) * step)
    return person ? { technicianId: person.id, at: { from, until: new Date(from.getTime() + order.minutes * 60_000) } } : null
  }

  const place = (row: string, at: Stretch) => {
    const now = held.value
    // The pointer moves more often than what it holds.
    if (!now || (now.row === row && +now.at.from === +at.from && +now.at.until === +at.until)) return
    // A vendor’s visit stays with the vendor, and ours with one of ours.
    const isOurs = row.startsWith('t')
    const stays = now.visit !== null && now.was!.technicianId === null
    if (stays ? row !== now.row : now.visit && !isOurs) return void (held.value = { ...now, at })
    held.value = { ...now, at, row, technicianId: isOurs ? Number(row.slice(1)) : null }
  }
  const shifted = (at: Stretch, minutes: number, until = minutes): Stretch => ({
    from: new Date(at.from.getTime() + minutes * 60_000),
    until: new Date(at.until.getTime() + until * 60_000),
  })
  const step = (minutes: number) => held.value && place(held.value.row, shifted(held.value.at, minutes))
  function stretch(minutes: number): void {
    if (!held.value) return
    const at = shifted(held.value.at, 0, minutes)
    if (at.until.getTime() - at.from.getTime() >= BOARD_STEP_MINUTES * 60_000) place(held.value.row, at)
  }
  function turn(by: number, rows: readonly string[]): void {
    if (!held.value) return
    const to = rows[rows.indexOf(held.value.row) + by]
    if (to) place(to, held.value.at)
  }
  const leave = () => {
    held.value = null
    problem.value = ''
  }

  /** Puts down what is held; what wants a reason is asked for it first. */
  async function drop(): Promise<boolean> {
    const now = held.value
    if (!now || busy.value) return false
    const span = { start: now.at.from.toISOString(), end: now.at.until.toISOString() }
    const same = now.was && now.was.technicianId === now.technicianId && +now.was.at.from === +now.at.from && +now.was.at.until === +now.at.until
    if (same) return (leave(), true)
    const { visit, order } = now
    const vendor = order && now.technicianId === null ? vendorOf(now.row) : null
    const who = vendor?.name ?? personOf(now.technicianId)?.name ?? null
    const what: Changes | Sent = vendor
      ? { id: order!.id, version: order!.version, vendorId: vendor.id, ...span }
      : visit
        ? { changes: [{ visitId: visit.id, version: visit.version, ...(now.technicianId === null ? {} : { technicianId: now.technicianId }), ...span }] }
        : { adds: [{ orderId: order!.id, version: order!.version, technicianId: now.technicianId!, ...span }] }
    return send(what, `${now.number} ${visit ? 'moved' : 'dispatched'}: ${[who, shortTime(span.start)].filter(Boolean).join(', ')}.`, conflicts.value)
  }

  /** Makes changes; asks for a reason where one is wanted, refuses what nothing overrules. */
  async function send(what: Changes | Sent, sentence: string, known: readonly Conflict[] = []): Promise<boolean> {
    if (isBarred(known)) {
      undo.say(`${known[0]!.sentence} Nothing was changed.`, undefined, true)
      leave()
      return false
    }
    if (isAsked(known)) {
      asked.value = { what, sentence, conflicts: known.filter(({ weight }) => weight !== 'hint').map((one) => one.sentence) }
      return false
    }
    return make(what, sentence)
  }
  async function sendDespite(reason: string): Promise<boolean> {
    const now = asked.value
    if (!now) return false
    if (isSent(now.what)) return make({ ...now.what, despiteSteps: reason, despiteWindow: reason, despitePapers: reason }, now.sentence)
    return make({ ...now.what, despite: reason }, now.sentence)
  }
  async function make(what: Omit<Rearrangement, 'siteId'> | Sent, sentence: string, isBack = false): Promise<boolean> {
    busy.value = true
    problem.value = ''
    try {
      const undone = isSent(what)
        ? await call(dispatchOrder, what, { key: freshKey() }).then(() => null)
        : (await call(rearrange, { ...what, siteId: siteId() }, { key: freshKey() })).undo
      if (undone && !isBack) back.value = [...back.value.slice(1 - MOST_BACK), { what: undone, sentence }]
      asked.value = null
      leave()
      await load()
      // A vendor was written to: that is taken back on the Sheet, with what is said to them.
      if (!isBack) undo.say(sentence, undone ? takeBack : undefined)
      return true
    } catch (error) {
      await refused(error, what, sentence)
      return false
    } finally {
      busy.value = false
    }
  }
  /** What the server knows and the Board did not is asked about or said; in either case the Board shows what is. */
  async function refused(error: unknown, what: Changes | Sent, sentence: string): Promise<void> {
    if (!(error instanceof CallProblem)) throw error
    // The server is away: what is held stays held, what was typed stays typed, and it can be tried again.
    if (isAway(error)) {
      problem.value = error.message
      if (!asked.value) undo.say(error.message, undefined, true)
      return
    }
    const reasons = error.reasons.filter(({ field, code }) => field?.startsWith('despite') || code === 'steps_first').map((one) => one.sentence)
    if (reasons.length && asked.value) problem.value = error.message
    else if (reasons.length) asked.value = { what, sentence, conflicts: reasons }
    else {
      asked.value = null
      leave()
      undo.say(error.message, undefined, true)
    }
    await load()
  }
  /** Something was changed elsewhere that can be taken back here. */
  async function did(what: Rearrangement, sentence: string): Promise<void> {
    back.value = [...back.value.slice(1 - MOST_BACK), { what, sentence }]
    await load()
    undo.say(sentence, takeBack)
  }
  async function takeBack(): Promise<void> {
    const last = back.value.at(-1)
    if (!last || busy.value) return
    const done = await make({ ...last.what, despite: 'Taken back' }, last.sentence, true)
    if (done) undo.say(`Taken back: ${last.sentence}`)
    // What was refused is refused again; what only did not arrive can be tried again.
    if (done || !problem.value) back.value = back.value.slice(0, -1)
  }
  const leaveAsked = () => {
    asked.value = null
    leave()
  }
  return {
    ...{ held, conflicts, rowConflicts, says, asked, problem, busy, back },
    ...{ judge, takeVisit, takeOrder, place, step, stretch, turn, drop, leave, send, did, sendDespite, takeBack, leaveAsked, personOf },
  }
}
const isSent = (what: object): what is Sent => 'vendorId' in what
export type Holding = ReturnType<typeof useHolding>
const MOST_BACK = 20
const isAway = ({ problem }: CallProblem) => problem.status === 0 || problem.status >= 500
