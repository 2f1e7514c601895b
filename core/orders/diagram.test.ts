import { readFileSync, writeFileSync } from 'node:fs'
import { lifecycleDocument, ORDER_MOVES } from '#core/orders'

test('the diagram in docs is that of the table in force', () => {
  const file = 'docs/order-lifecycle.md'
  if (process.env.UPDATE_DOCS) writeFileSync(file, lifecycleDocument())
  expect(readFileSync(file, 'utf8')).toBe(lifecycleDocument())
  for (const move of Object.keys(ORDER_MOVES)) expect(lifecycleDocument()).toContain(`: ${move}`)
})
