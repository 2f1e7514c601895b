import { decideApprovalByLink, readApproval, readApprovalPicture } from '#contract/approvals'
import { approveOrder, editOrder, readOrder, recallOrder, submitOrder } from '#contract/orders'
import { accepted, castAt, complete, House, orderInFull, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Deciding from a mail: the same rules as at the Desk, by the person the link names, once. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('approvals', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const INES = 'ines.ferrall@skerry.example'
const OSRIC = 'osric.vane@skerry.example'

/** An order that waits for approval. */
async function asked(estimateMinor = 20_000): Promise<{ id: number; number: string }> {
  const id = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete, estimateMinor })
  await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
  return { id, number: (await cast.coordinator.must(readOrder, { id })).number }
}
async function tokenFor(to: string, number: string): Promise<string> {
  const { text } = await house.mail(to, (mail) => mail.subject.includes(number))
  return /\/a\/([A-Za-z0-9_-]{43})/.exec(text)![1]!
}
const state = async (id: number) => (await cast.coordinator.must(readOrder, { id })).state

test('the mail holds text, cost and payer; opening its link shows the whole and decides nothing', async () => {
  const { id, number } = await asked()
  const { text } = await house.mail(INES, (mail) => mail.subject.includes(number))
  for (const words of ['The left one of three', '200.00 EUR', '5300 Deep Corals 100 %']) expect(text).toContain(words)
  const token = await tokenFor(INES, number)
  // Scanners of mail open every link, some of them twice and by HEAD.
  for (const method of ['GET', 'HEAD', 'GET']) expect((await fetch(`${server.url}/a/${token}`, { method })).status).toBe(200)
  const page = await cast.anybody.must(readApproval, { token })
  expect(page).toMatchObject({ person: 'Ines Ferrall', actingFor: null, number, estimateMinor: 20_000, over: null, askedBy: 'Maren Quill' })
  expect(await state(id)).toBe('to_approve')
  expect(await house.rows('SELECT id FROM approval_link WHERE token_hash = ?', [token])).toEqual([])
})

test('approves once, by name; the other approver’s link says by whom, and neither works again', async () => {
  const { id, number } = await asked()
  const [mine, other] = [await tokenFor(INES, number), await tokenFor(OSRIC, number)]
  const { version: read } = await cast.anybody.must(readApproval, { token: mine })
  const page = await cast.anybody.must(decideApprovalByLink, { token: mine, version: read, verdict: 'approve' })
  expect(page.over).toBe('You have approved it.')
  expect(await state(id)).toBe('ready')
  const { timeline } = await orderInFull(cast.coordinator, id)
  expect(timeline.find((entry) => entry.kind === 'order.approve')).toMatchObject({ who: 'Ines Ferrall', details: { by: 'mail' } })
  expect((await cast.anybody.must(readApproval, { token: other })).over).toBe('It was approved by Ines Ferrall meanwhile.')
  for (const token of [mine, other]) {
    const again = await cast.anybody.call(decideApprovalByLink, { token, version: page.version, verdict: 'send_back', note: 'No' })
    expect(again.problem.reasons![0]!.code).toBe('over')
  }
  expect(await state(id)).toBe('ready')
})

test('sending back needs what has to change; a question reaches the desk and leaves the link as it was', async () => {
  const { id, number } = await asked()
  const token = await tokenFor(INES, number)
  const { version: read } = await cast.anybody.must(readApproval, { token })
  const send = (verdict: 'send_back' | 'ask', note?: string) => cast.anybody.call(decideApprovalByLink, { token, version: read, verdict, note })
  expect((await send('send_back')).status).toBe(422)
  expect((await send('ask')).problem.reasons![0]!.field).toBe('note')
  expect((await send('ask', 'Is it under warranty?')).body.over).toBeNull()
  let heard: unknown[] = []
  for (let tries = 0; tries < 50 && !heard.length; tries++) {
    heard = await house.rows("SELECT sentence FROM notice WHERE sentence LIKE 'Ines Ferrall asks about%warranty?'")
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  expect(heard).toHaveLength(1)
  expect((await send('send_back', 'Ask the maker first.')).body.over).toBe('You have sent it back.')
  expect(await state(id)).toBe('draft')
})

test('a limit holds by link as it does at the desk; a deputy decides within what is lent, and it is recorded', async () => {
  const { id, number } = await asked(900_000)
  await house.mail(OSRIC, (mail) => mail.subject.includes(number))
  const [ines] = await house.rows<{ id: number }>('SELECT id FROM account WHERE email = ?', [INES])
  const [osric] = await house.rows<{ id: number }>('SELECT id FROM account WHERE email = ?', [OSRIC])
  // No mail for whose limit is too low.
  expect(
    await house.rows('SELECT l.id FROM approval_link l JOIN approval a ON a.id = l.approval_id WHERE a.order_id = ? AND l.account_id = ?', [id, ines!.id]),
  ).toEqual([])
  await house.rows('DELETE FROM deputy')
  await house.rows("INSERT INTO deputy (for_account_id, deputy_account_id, from_at, until_at) VALUES (?, ?, '2026-11-01', '2026-12-31')", [osric!.id, ines!.id])
  const second = await asked(900_000)
  const token = await tokenFor(INES, second.number)
  const page = await cast.anybody.must(readApproval, { token })
  expect(page).toMatchObject({ person: 'Ines Ferrall', actingFor: 'Osric Vane' })
  // The deputyship ends while the mail lies there: the link opens, the limit does not.
  await house.rows("UPDATE deputy SET until_at = '2026-11-02'")
  const refused = await cast.anybody.call(decideApprovalByLink, { token, version: page.version, verdict: 'approve' })
  expect(refused.status).toBe(422)
  expect(await state(second.id)).toBe('to_approve')
  await house.rows("UPDATE deputy SET until_at = '2026-12-31'")
  await cast.anybody.must(decideApprovalByLink, { token, version: page.version, verdict: 'approve' })
  const [row] = await house.rows<{ decided_by: number; acting_for_id: number }>('SELECT decided_by, acting_for_id FROM approval WHERE order_id = ?', [
    second.id,
  ])
  expect(row).toEqual({ decided_by: ines!.id, acting_for_id: osric!.id })
})

test('what changed while it was read is not approved unread; what was taken back cannot be approved at all', async () => {
  const { id, number } = await asked()
  const token = await tokenFor(INES, number)
  const { version: read } = await cast.anybody.must(readApproval, { token })
  expect((await cast.anybody.call(decideApprovalByLink, { token, version: read - 1, verdict: 'approve' })).status).toBe(409)
  await cast.coordinator.must(recallOrder, { id, version: await version(cast, id), reason: 'Wrong payer' }).catch(() => undefined)
  if ((await state(id)) === 'to_approve') await cast.approver.must(approveOrder, { id, version: await version(cast, id) })
  const late = await cast.anybody.call(decideApprovalByLink, { token, version: await version(cast, id), verdict: 'approve' })
  expect(late.problem.reasons![0]!.code).toBe('over')
})

test('an expired link, one made up, and one of somebody who approves no more open nothing', async () => {
  const { number } = await asked()
  const token = await tokenFor(INES, number)
  expect((await cast.anybody.call(readApproval, { token: 'x'.repeat(43) })).status).toBe(404)
  await house.rows("UPDATE account SET disabled_at = '2026-11-20' WHERE email = ?", [INES])
  expect((await cast.anybody.call(readApproval, { token })).status).toBe(404)
  await house.rows('UPDATE account SET disabled_at = NULL WHERE email = ?', [INES])
  expect((await cast.anybody.call(readApproval, { token })).status).toBe(200)
  await house.rows("UPDATE approval_link SET expires_at = '2026-11-20'")
  expect((await cast.anybody.call(readApproval, { token })).status).toBe(404)
})

test('pictures of the order come by the link; those of other orders do not', async () => {
  const { id, number } = await asked()
  const token = await tokenFor(INES, number)
  await house.rows(
    "INSERT INTO attachment (site_id, order_id, kind, name, mime, bytes, content, at) VALUES (1, ?, 'picture', 'p.jpg', 'image/jpeg', 1, 'x', '2026-11-23')",
    [id],
  )
  const [own] = await house.rows<{ id: number }>('SELECT id FROM attachment WHERE order_id = ?', [id])
  expect((await cast.anybody.must(readApproval, { token })).pictures.map((one) => one.id)).toEqual([own!.id])
  const get = (picture: number) => fetch(`${server.url}${readApprovalPicture.path.replace(':token', token).replace(':id', String(picture))}`)
  expect((await get(own!.id)).status).toBe(200)
  const other = await asked()
  await house.rows(
    "INSERT INTO attachment (site_id, order_id, kind, name, mime, bytes, content, at) VALUES (1, ?, 'picture', 'q.jpg', 'image/jpeg', 1, 'x', '2026-11-23')",
    [other.id],
  )
  const [foreign] = await house.rows<{ id: number }>('SELECT id FROM attachment WHERE order_id = ?', [other.id])
  expect((await get(foreign!.id)).status).toBe(404)
})
