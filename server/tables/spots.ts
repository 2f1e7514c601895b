import { index, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { accounts } from './people'
import { requests } from './requests'

/** What was reported from a phone, by the name the phone gave it: photos find it by that. */
export const spotReports = mysqlTable(
  'spot_report',
  {
    mark: varchar('mark', { length: 64 }).primaryKey(),
    requestId: int('request_id')
      .notNull()
      .references(() => requests.id),
    accountId: int('account_id')
      .notNull()
      .references(() => accounts.id),
  },
  (table) => [index('spot_report_request').on(table.requestId)],
)
