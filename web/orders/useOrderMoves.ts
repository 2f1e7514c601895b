import { computed, ref } from 'vue'
import type { Ref } from 'vue'
import * as contract from '#contract/orders'
import { HOLD_REASON_NAMES, HOLD_REASONS, INVERSE_MOVES, neededReason, offeredMoves } from '#core/orders'
import type { HoldReason, OrderMove } from '#core/orders'
import { isSettled } from '#core/orders'
import { call, useSession, useUndo, useVocabulary } from '#web/kit'
import { sayRefusal } from '#web/sheets'
import type { OfferedMove } from '#web/sheets'
import { ownStateChoices } from './ownStateChoices'

const CALLS: Partial<Record<OrderMove, typeof contract.submitOrder>> = {
  submit: contract.submitOrder,
  approve: contract.approveOrder,
  sendBack: contract.sendBackOrder,
  askAgain: contract.askAgainOrder,
  recall: contract.recallOrder,
  resume: contract.resumeOrder,
  reopen: contract.reopenOrder,
  check: contract.checkOrder,
  close: contract.closeOrder,
  cancel: contract.cancelOrder,
  discard: contract.discardOrder,
  post: contract.postOrder,
  reverse: contract.reverseOrder,
}
const ONWARD: OrderMove[] = ['submit', 'approve', 'askAgain', 'check', 'post', 'close', 'resume']
const SAID: Partial<Record<OrderMove, string>> = {
  submit: 'waits for approval',
  approve: 'is approved',
  sendBack: 'is sent back',
  askAgain: 'waits for approval again',
  recall: 'is back at the Desk',
  hold: 'is on hold',
  resume: 'goes on',
  reopen: 'is open again',
  check: 'is checked; the reporter is told',
  close: 'is closed',
  cancel: 'is called off',
  discard: 'is discarded',
  post: 'is posted and closed',
  reverse: 'is reversed; it can be posted again',
}

/** What can be made of an order by who looks at it: the moves, and how each is made, said and taken back. */
export function useOrderMoves(order: Ref<contract.OrderSheet | null>, reload: () => Promise<void>) {
  const session = useSession()
  const words = useVocabulary()
  void words.ensure()
  const said = useUndo()
  const busy = ref(false)

  const moves = computed<OfferedMove[]>(() => {
    const it = order.value
    if (!it) return []
    const offered = offeredMoves(it.facts)
      .filter(({ move, rule }) => (CALLS[move] || move === 'hold') && session.can(rule.may))
      // Only what has grown is asked about again.
      .filter(({ move }) => move !== 'askAgain' || it.facts.outgrownMinor !== null)
      .map(({ move, rule, reasons }): OfferedMove => {
        const { needed, answers } = neededReason(it.facts, move)
        return {
          move,
          label: rule.label,
          key: rule.key,
          reasons,
          reason: needed ? 'required' : rule.reason,
          answers,
          reasonLabel: rule.reasonLabel,
          onward: ONWARD.includes(move),
          own: ownStateChoices(words.lists?.ownStates, it.site.id, typeof rule.to === 'function' ? rule.to(it.facts) : rule.to).map(({ id, name }) => ({
            value: id,
            label: name,
          })),
          ...(move === 'hold' ? { choices: { name: 'What for', options: HOLD_REASONS.map((one) => ({ value: one, label: HOLD_REASON_NAMES[one] })) } } : {}),
        }
      })
    const mayArchive = isSettled(it.state) && !it.archived && session.can('orders.edit')
    return mayArchive ? [...offered, { move: 'archive', label: 'Archive', key: 'i', reasons: [], reason: 'none' }] : offered
  })

  async function go(name: string, { reason, choice, ownStateId }: { reason?: string; choice?: string; ownStateId?: number }): Promise<void> {
    const { id, version, number } = order.value!
    if (name === 'archive') return archive()
    const move = name as OrderMove
    busy.value = true
    try {
      const done =
        move === 'hold'
          ? await call(contract.holdOrder, { id, version, holdReason: choice as HoldReason, reason: reason ?? '', ownStateId })
          : await call(CALLS[move]!, { id, version, reason, ownStateId })
      said.say(`${number} ${SAID[move]}.`, inverseOf(move, id, done.version))
    } catch (error) {
      sayRefusal(error)
    } finally {
      busy.value = false
      await reload()
    }
  }

  /** Undo is the inverse move, made with the version the act left: if anybody acted since, it is refused. */
  function inverseOf(move: OrderMove, id: number, version: number): (() => Promise<unknown>) | undefined {
    if (move === 'discard') return () => call(contract.restoreOrder, { id, version }).then(reload)
    const inverse = INVERSE_MOVES[move]
    return inverse ? () => call(CALLS[inverse]!, { id, version, reason: 'Taken back at once.' }).then(reload) : undefined
  }

  async function restore(): Promise<void> {
    await call(contract.restoreOrder, { id: order.value!.id, version: order.value!.version }).catch(sayRefusal)
    await reload()
  }

  async function archive(): Promise<void> {
    try {
      const { id, version } = await call(contract.archiveOrder, { id: order.value!.id, version: order.value!.version })
      said.say(`${order.value!.number} is archived; searching finds it.`, () => call(contract.restoreOrder, { id, version }).then(reload))
    } catch (error) {
      sayRefusal(error)
    }
    await reload()
  }

  return { moves, go, restore, busy }
}
