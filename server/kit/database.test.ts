import { toLog } from './logger'
import { isDeadlock, isDuplicate, isOutOfTime, unavailability } from './database'
import { DatabaseAway } from './databaseWatch'
import { withoutPrivateLinks } from './outbox'

/** Drizzle wraps what the driver says: the code stands a level below. */
const wrapped = (more: object) => Object.assign(new Error('Failed query'), { cause: Object.assign(new Error('driver'), more) })

describe('what a failure of the database means', () => {
  test.each(['ECONNREFUSED', 'PROTOCOL_CONNECTION_LOST', 'ETIMEDOUT', 'ER_SERVER_SHUTDOWN', 'ER_CON_COUNT_ERROR'])('%s: it is away', (code) => {
    expect([unavailability(wrapped({ code })), unavailability(Object.assign(new Error(), { code }))]).toEqual(['away', 'away'])
  })
  test('a watch that gave up, or a connection that was closed under a statement, is away too', () => {
    expect(unavailability(new DatabaseAway('it does not answer'))).toBe('away')
    expect(unavailability(new Error("Can't add new command when connection is in closed state"))).toBe('away')
  })
  // Error numbers of MariaDB for a full disk, from memory: 1021, 1026, 1114, and 1030 with the system's error 28.
  test.each([
    { code: 'ER_DISK_FULL' },
    { code: 'ER_RECORD_FILE_FULL' },
    { code: 'ENOSPC' },
    { code: 'ER_GET_ERRNO', message: 'Got error 28 "No space left on device"' },
  ])('%j: its disk is full', (error) => expect(unavailability(wrapped(error))).toBe('full'))
  test('a savepoint that is gone went with its whole change, which may be tried again', () => {
    expect(isDeadlock(wrapped({ code: 'ER_SP_DOES_NOT_EXIST', errno: 1305, message: 'SAVEPOINT sp1 does not exist' }))).toBe(true)
  })
  test('what is logged says where it failed, and nothing that somebody typed', () => {
    const error = new Error('Failed query: select 1\nparams: my secret,2', {
      cause: Object.assign(new Error('Unknown column'), { code: 'ER_BAD_FIELD_ERROR' }),
    })
    expect(toLog(error)).toMatchObject({ message: 'Failed query: select 1', cause: { code: 'ER_BAD_FIELD_ERROR', message: 'Unknown column' } })
    expect(JSON.stringify(toLog(error))).not.toContain('secret')
    expect(toLog('odd')).toEqual({ message: 'odd' })
  })
  test('what the sender or the code did wrong is neither', () => {
    for (const code of ['ER_DUP_ENTRY', 'ER_BAD_FIELD_ERROR', 'ER_NO_REFERENCED_ROW_2', 'ER_LOCK_DEADLOCK'])
      expect(unavailability(wrapped({ code }))).toBeNull()
    expect(unavailability(new TypeError('x is undefined'))).toBeNull()
    expect([isDeadlock(wrapped({ code: 'ER_LOCK_DEADLOCK' })), isDuplicate(wrapped({ code: 'ER_DUP_ENTRY' })), isOutOfTime(wrapped({ errno: 1969 }))]).toEqual([
      true,
      true,
      true,
    ])
  })
})

test('private links are taken out of a mail that was sent, and nothing else', () => {
  const token = 'A'.repeat(43)
  for (const page of ['t', 'p', 'a', 'mine']) expect(withoutPrivateLinks(`See https://x.example/${page}/${token} now`)).not.toContain(token)
  expect(withoutPrivateLinks('See https://x.example/c/SKE and /t/short')).toBe('See https://x.example/c/SKE and /t/short')
})
