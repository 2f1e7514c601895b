import { ORDER_MOVES } from './lifecycle'
import type { OrderMove } from './moveNames'
import type { OrderFacts } from './facts'
import { ORDER_STATE_NAMES, ORDER_STATES } from './states'
import type { OrderState } from './states'

/** The order lifecycle as a Mermaid state diagram and a table, made from the table the server enforces. */
export function lifecycleDocument(): string {
  const moves = Object.entries(ORDER_MOVES) as [OrderMove, (typeof ORDER_MOVES)[OrderMove]][]
  const edges = moves.flatMap(([move, rule]) => rule.from.flatMap((from) => endsOf(rule.to, from).map((to) => `  ${from} --> ${to}: ${move}`)))
  const states = ORDER_STATES.map((state) => `  state "${ORDER_STATE_NAMES[state]}" as ${state}`)
  const rows = moves.map(
    ([move, rule]) =>
      `| ${move} | ${rule.from.join(', ')} | ${[...new Set(rule.from.flatMap((from) => endsOf(rule.to, from)))].join(' or ')} | ${rule.reason} | ${rule.may} | ${rule.needs.map((need) => need.name).join(', ') || 'nothing more'} |`,
  )
  return [
    '# The order lifecycle',
    '',
    'Generated from `core/orders/lifecycle.ts` by the test beside `core/orders/diagram.ts`; change the table, then run `UPDATE_DOCS=1 npm run unit`.',
    '',
    '```mermaid',
    'stateDiagram-v2',
    ...states,
    '  [*] --> draft',
    ...edges,
    '  closed --> [*]',
    '```',
    '',
    '| move | from | to | written reason | permission | needs |',
    '|---|---|---|---|---|---|',
    ...rows,
    '',
  ].join('\n')
}

/** Where a move can lead from a state, whatever the order's visits, hold and agreements were. */
function endsOf(to: OrderState | ((facts: OrderFacts) => OrderState), from: OrderState): OrderState[] {
  if (typeof to !== 'function') return [to]
  const tries = [0, 1].flatMap((liveVisits) =>
    (['ready', 'dispatched'] as const).flatMap((heldFrom) =>
      [[], [{ decided: false, mine: false }]].map((asks) => to({ state: from, liveVisits, heldFrom, asks } as unknown as OrderFacts)),
    ),
  )
  return [...new Set(tries)]
}
