import { RuleTester } from 'eslint'
import path from 'node:path'
import { ownTables, tableOwners } from '../../scripts/lint/ownTables.mjs'

const folder = path.resolve(__dirname, '../tables')
const options = [{ folder }]
const at = (room: string) => path.resolve(folder, `../${room}/some.ts`)
const foreign = [{ messageId: 'foreign' }]

test('every table has an owner, by the file it stands in', () => {
  const owners = tableOwners(folder)
  expect(owners.get('orders')).toBe('orders')
  expect(owners.get('visits')).toBe('dispatch')
  expect(owners.get('attachments')).toBe('kit')
  expect(new Set(owners.values())).not.toContain('setup')
})

new RuleTester().run('own-tables', ownTables, {
  valid: [
    { code: 'tx.update(orders).set(row)', filename: at('orders'), options },
    { code: 'tx.select().from(orders)', filename: at('requests'), options },
    { code: 'ids.delete(order)', filename: at('requests'), options },
    { code: 'sql`select 1 from ${orders}`', filename: at('requests'), options },
  ],
  invalid: [
    { code: 'tx.insert(orders).values(row)', filename: at('requests'), options, errors: foreign },
    { code: 'tx.delete(visits).where(mine)', filename: at('orders'), options, errors: foreign },
    { code: 'tx.execute(sql`update ${orders} set archived = 1`)', filename: at('lists'), options, errors: foreign },
    { code: 'tx.execute(sql`insert ignore into ${mails} values ()`)', filename: at('requests'), options, errors: foreign },
  ],
})
