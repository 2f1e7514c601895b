import { int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { id, instant, tokenHash } from './columns'
import { approvals } from './orders'
import { accounts } from './people'

/** Lets one approver decide one question from a mail: names the person, works once, and expires. */
export const approvalLinks = mysqlTable(
  'approval_link',
  {
    id: id(),
    approvalId: int('approval_id')
      .notNull()
      .references(() => approvals.id),
    accountId: int('account_id')
      .notNull()
      .references(() => accounts.id),
    nonce: varchar('nonce', { length: 32 }).notNull(),
    tokenHash: tokenHash('token_hash').notNull(),
    createdAt: instant('created_at').notNull(),
    expiresAt: instant('expires_at').notNull(),
    usedAt: instant('used_at'),
  },
  (table) => [uniqueIndex('approval_link_token').on(table.tokenHash), uniqueIndex('approval_link_once').on(table.approvalId, table.accountId)],
)
