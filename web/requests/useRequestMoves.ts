import { computed, nextTick, ref } from 'vue'
import type { Ref } from 'vue'
import { useRouter } from 'vue-router'
import { acceptRequest, askReporter, declineRequest, joinRequest, makeAnotherOrder, readRequest, takeUpRequest, undoOutcome } from '#contract/requests'
import type { RequestSheet } from '#contract/requests'
import { isUndecided, REQUEST_MOVES, requestMoveReasons } from '#core/requests'
import type { RequestMove } from '#core/requests'
import { call, jumpTo, useSession, useUndo } from '#web/kit'
import { sayRefusal } from '#web/sheets'
import type { OfferedMove } from '#web/sheets'

const OPENED = { reasons: [], reason: 'none' as const }

/** What can be made of a request by who looks at it: the moves, and how each is made, said and taken back. */
export function useRequestMoves(request: Ref<RequestSheet | null>, reload: () => Promise<void>, next: () => void) {
  const router = useRouter()
  const session = useSession()
  const said = useUndo()
  /** What is being chosen to go with a move: the request to join, the order to accept into, or the words of another order. */
  const choosing = ref<'request' | 'order' | 'another' | null>(null)
  const may = computed(() => session.can('requests.triage'))
  const mayTriage = computed(() => may.value && !!request.value && isUndecided(request.value.state))
  const missing = computed(() => (mayTriage.value ? requestMoveReasons(request.value!.facts, 'accept') : []))
  /** The first thing without which it cannot be accepted. */
  const missingField = computed(() => missing.value[0]?.field)
  const mayTakeBack = computed(() => may.value && !!request.value?.outcome && !request.value.outcome.reasons.length)

  const moves = computed<OfferedMove[]>(() => {
    const it = request.value
    if (!it) return []
    if (!mayTriage.value)
      return [
        ...(mayTakeBack.value ? [{ ...OPENED, move: 'takeBack', label: 'Take it back', key: 'y' }] : []),
        ...(it.state === 'accepted' && may.value
          ? [{ ...OPENED, move: 'another', label: 'Make another order of it', key: 'm', opens: () => choose('another') }]
          : []),
      ]
    const plain = (['accept', 'ask', 'decline', 'join'] as RequestMove[])
      .filter((move) => REQUEST_MOVES[move].from.includes(it.state))
      .map((move): OfferedMove => {
        const { label, key, reason, reasonLabel } = REQUEST_MOVES[move]
        return { move, label, key, reasons: requestMoveReasons(it.facts, move), reason, reasonLabel, onward: move === 'accept' }
      })
    return [
      ...(it.takenUpAt ? [] : [{ ...OPENED, move: 'takeUp', label: 'Take it up', key: 't', onward: true }]),
      ...plain.filter(({ move }) => move === 'accept'),
      ...(missing.value.length ? [] : [{ ...OPENED, move: 'acceptOn', label: 'Accept, on to the next', key: 'k' }]),
      ...plain.filter(({ move }) => move !== 'accept'),
      { ...OPENED, move: 'into', label: 'Accept into an order', key: 'o', opens: () => choose('order') },
      { ...OPENED, move: 'missing', label: 'What is missing', key: 'e', opens: goToMissing },
    ]
  })

  function goToMissing(): void {
    if (missingField.value) jumpTo(missingField.value)
    else said.say('Nothing is missing; it can be accepted.')
  }

  function choose(what: 'request' | 'order' | 'another'): void {
    choosing.value = what
    void nextTick(() => document.getElementById(what === 'another' ? 'another-summary' : `into-${what}`)?.focus())
  }

  async function go(move: string, { reason }: { reason?: string }): Promise<void> {
    const { id, version, number } = request.value!
    if (move === 'join') return choose('request')
    if (move === 'acceptOn') return void (await acceptAndGoOn())
    await attempt(async () => {
      if (move === 'accept') {
        const made = await call(acceptRequest, { id, version })
        said.say(`${number} is accepted as ${made.orderNumber}.`, undo(id, true))
        await router.push(`/desk/planning/order/${made.orderId}`)
        return
      }
      if (move === 'takeUp') {
        await call(takeUpRequest, { id, version })
        said.say(`${number} is in Triage.`)
      }
      if (move === 'takeBack') {
        await undo(id)()
        said.say(`${number} is undecided again.`)
      }
      if (move === 'ask') {
        await call(askReporter, { id, version, reason: reason! })
        said.say('The question is on its way to the reporter.', undo(id))
      }
      if (move === 'decline') {
        await call(declineRequest, { id, version, reason: reason! })
        said.say(`${number} is declined; the reporter is told why.`, undo(id))
      }
      await reload()
    })
  }

  /** Accepts and goes on with the next in the queue: who triages ten does not want to visit ten orders. */
  const acceptAndGoOn = () =>
    attempt(async () => {
      const { id, version, number } = request.value!
      const made = await call(acceptRequest, { id, version })
      said.say(`${number} is accepted as ${made.orderNumber}; it waits in Planning.`, undo(id, true))
      next()
    })

  async function acceptInto(orderId: number): Promise<void> {
    choosing.value = null
    await attempt(async () => {
      const { id, version, number } = request.value!
      const into = await call(acceptRequest, { id, version, orderId })
      said.say(`${number} is accepted into ${into.orderNumber}; its reporter hears how that goes.`, undo(id))
      await reload()
    })
  }

  async function joinTo(toId: number): Promise<void> {
    choosing.value = null
    await attempt(async () => {
      const { id, version, number } = request.value!
      await call(joinRequest, { id, version, toId })
      said.say(`${number} is joined; its reporter hears how the other goes.`, undo(id))
      await reload()
    })
  }

  /** One request, several jobs: the next order starts with the same, under a line of its own. */
  const makeAnother = (summary: string) =>
    attempt(async () => {
      const { id, version, number } = request.value!
      const made = await call(makeAnotherOrder, { id, version, summary })
      choosing.value = null
      said.say(`${made.orderNumber} is made of ${number} as well.`, undo(id))
      await reload()
    })

  /** Takes the outcome back, with the version it stands at now; whoever acted since is named in the refusal. */
  function undo(id: number, goBack = false): () => Promise<unknown> {
    return async () => {
      const { version } = await call(readRequest, { id })
      await call(undoOutcome, { id, version })
      if (goBack) await router.push(`/desk/triage/request/${id}`)
      else await reload()
    }
  }

  /** Answers whether it went; a refusal is said, and what stands is shown again. */
  async function attempt(act: () => Promise<void>): Promise<boolean> {
    try {
      await act()
      return true
    } catch (error) {
      sayRefusal(error)
      await reload()
      return false
    }
  }

  return { moves, go, choosing, joinTo, acceptInto, makeAnother, mayTriage, missingField, mayTakeBack }
}
