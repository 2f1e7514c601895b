import { computed, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import { listOrderLines, listRecordLines, listRequestLines, readListFacts } from '#contract/lists'
import type { ListFacts, RecordLine, WithOwn } from '#contract/lists'
import type { OrderLine } from '#contract/orders'
import type { RequestLine } from '#contract/requests'
import type { LiveChange } from '#contract/insight'
import type { Page, Problem } from '#contract/kit'
import { formatAsk, isRegister } from '#core/lists'
import type { ListAsk } from '#core/lists'
import { call, onLiveChange, problemFrom, useSession, useSoon } from '#web/kit'
import { isActed } from '#core/events'
import { ownId } from '#core/own'

export type WorkLine = (OrderLine | RequestLine) & Partial<WithOwn>
export type Line = WorkLine | RecordLine

/** The columns that are read for themselves: all of a register, of work those the site has added. */
const readColumns = ({ kind, columns }: ListAsk) => columns.filter((name) => isRegister(kind) || ownId(name) !== null)

/** A page of any list. */
export function readLines({ kind }: Pick<ListAsk, 'kind'>, input: { ask: string; after?: string; limit: number }): Promise<Page<Line>> {
  if (isRegister(kind)) return call(listRecordLines, { register: kind, ...input })
  return kind === 'orders' ? call(listOrderLines, input) : call(listRequestLines, input)
}

/** Rows read at once while scrolling through all of them. */
const STRETCH = 100
/** A longer list is not read anew with every change: it says that there are changes. */
const MOST_REREAD = 400
/** What happens by itself is no change of somebody’s. */

/** The rows of a list: a page of them, or all, read on while one scrolls. */
export function useList(ask: Ref<ListAsk>) {
  const session = useSession()
  const rows = shallowRef<Line[]>([])
  const facts = shallowRef<ListFacts | null>(null)
  const next = ref<string | null>(null)
  const problem = ref<Problem | null>(null)
  const ready = ref(false)
  const busy = ref(false)
  /** Where each page before this one began; the last is where this one does. */
  const trail = ref<(string | undefined)[]>([undefined])
  /** Who changed which row since it was read first. */
  const changed = shallowRef(new Map<number, string>())
  const missed = ref(0)
  const address = computed(() => formatAsk({ ...ask.value, columns: readColumns(ask.value), compact: false, group: null, size: '50' }))
  const size = computed(() => (ask.value.size === 'all' ? STRETCH : Number(ask.value.size)))
  let round = 0

  const page = (after: string | undefined, limit: number) => readLines(ask.value, { ask: pageAddress(), after, limit })
  const pageAddress = () => formatAsk({ ...ask.value, group: null, size: '50', compact: false })

  async function read(keep: boolean): Promise<void> {
    const mine = ++round
    busy.value = true
    try {
      const wanted = keep && ask.value.size === 'all' ? Math.max(STRETCH, rows.value.length) : size.value
      const found: Line[] = []
      let after = trail.value.at(-1)
      let more: string | null = null
      while (found.length < wanted) {
        const answer = await page(after, Math.min(200, wanted - found.length))
        found.push(...answer.rows)
        more = answer.next
        if (!more) break
        after = more
      }
      if (mine !== round) return
      rows.value = found
      next.value = more
      problem.value = null
      ready.value = true
      missed.value = 0
    } catch (error) {
      if (mine !== round) return
      problem.value = problemFrom(error)
    } finally {
      if (mine === round) busy.value = false
    }
  }

  async function readFacts(): Promise<void> {
    const asked = pageAddress()
    const found = await call(readListFacts, { kind: ask.value.kind, ask: asked }).catch(() => null)
    if (asked === pageAddress()) facts.value = found
  }

  async function readOn(): Promise<void> {
    if (!next.value || busy.value) return
    const mine = round
    busy.value = true
    try {
      const answer = await page(next.value, STRETCH)
      if (mine !== round) return
      rows.value = [...rows.value, ...answer.rows]
      next.value = answer.next
    } catch (error) {
      problem.value = problemFrom(error)
    } finally {
      busy.value = false
    }
  }

  function turn(by: 1 | -1): void {
    if (by === 1 && next.value) trail.value = [...trail.value, next.value]
    else if (by === -1 && trail.value.length > 1) trail.value = trail.value.slice(0, -1)
    else return
    void read(false)
  }

  watch(
    // One text, so that what else stands in the address bar changes nothing here.
    () => `${ask.value.kind} ${address.value} ${ask.value.size}`,
    () => {
      trail.value = [undefined]
      ready.value = false
      rows.value = []
      facts.value = null
      changed.value = new Map()
      void read(false)
      void readFacts()
    },
    { immediate: true },
  )

  const reread = useSoon(() => {
    void read(true)
    void readFacts()
  }, 150)
  function hear(change: LiveChange | null): void {
    const { kind } = ask.value
    // What happens in another register is nothing to this one; work on a record is shown in its row.
    if (change && isRegister(kind) && change.register !== kind && !change.orderId) return
    const id = isRegister(kind) ? change?.recordId : kind === 'orders' ? change?.orderId : change?.requestId
    const somebody = change && change.who !== session.self?.name && isActed(change.kind)
    if (somebody && id && rows.value.some((row) => row.id === id)) changed.value = new Map(changed.value).set(id, change.who)
    if (rows.value.length <= MOST_REREAD) reread()
    else missed.value++
  }
  onLiveChange(hear)

  return { rows, facts, next, problem, ready, busy, trail, changed, missed, reload: () => Promise.all([read(true), readFacts()]), readOn, turn }
}
