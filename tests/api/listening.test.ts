import { showPresence } from '#contract/insight'
import type { LiveChange } from '#contract/insight'
import { editOrder, recallOrder } from '#contract/orders'
import { editAccount, readAccounts, signOut } from '#contract/people'
import { castAt, Client, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Who listens is asked again: at sign-out, lost roles, a closed account, a recalled job; and each hears of their own sites. */
let house: House
let server: Running
let cast: Cast
let admin: Client
const ends: AbortController[] = []

beforeAll(async () => {
  house = await House.open('listening')
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(async () => {
  ends.forEach((end) => end.abort())
  await house?.close()
})

interface Listening {
  heard: LiveChange[]
  presences: unknown[]
  over: boolean
}
async function listen(client: Client): Promise<Listening> {
  const end = new AbortController()
  ends.push(end)
  const line: Listening = { heard: [], presences: [], over: false }
  const response = await fetch(`${client.url}/api/live`, { headers: { Cookie: client.session }, signal: end.signal })
  void (async () => {
    let text = ''
    const decoder = new TextDecoder()
    try {
      for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
        text += decoder.decode(chunk, { stream: true })
        const messages = text.split('\n\n')
        text = messages.pop()!
        for (const message of messages) {
          const data = /^data: (.+)/m.exec(message)?.[1]
          if (!data) continue
          if (message.startsWith('event: presence')) line.presences.push(JSON.parse(data))
          else line.heard.push(JSON.parse(data) as LiveChange)
        }
      }
    } catch {
      // Ended by this test.
    }
    line.over = true
  })()
  return line
}
const until = async (what: () => boolean, ms = 8_000) => {
  for (const end = Date.now() + ms; Date.now() < end;) {
    if (what()) return
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  throw new Error('It did not happen in time.')
}
/** Something the coordinator does to an order, heard by whoever may. */
const change = async (id: number, words: string) => cast.coordinator.must(editOrder, { id, version: await version(cast, id), noteForWorker: words })

test('a line ends when its person signs out, loses their account, or their session is over', async () => {
  const { id } = await orderAt(cast, 'ready')
  const [leaving, closed, watching] = await Promise.all([
    new Client(server.url).signIn('tobias.achterberg'),
    new Client(server.url).signIn('osric.vane'),
    new Client(server.url).signIn('ines.ferrall'),
  ])
  const lines = await Promise.all([listen(leaving), listen(closed), listen(watching)])
  await change(id, 'one')
  await until(() => lines.every((line) => line.heard.some((one) => one.orderId === id)))
  await leaving.must(signOut, {})
  const row = (await admin.must(readAccounts, {})).accounts.find((one) => one.email.startsWith('osric.vane'))!
  await admin.must(editAccount, { id: row.id, version: row.version, roles: row.roles, approvalLimitMinor: row.approvalLimitMinor, disabled: true })
  await until(() => lines[0].over && lines[1].over)
  const before = lines[2].heard.length
  await change(id, 'two')
  await until(() => lines[2].heard.length > before)
  expect(lines[2].over).toBe(false)
})

test('lost roles and other sites: what is heard goes by the roles of this moment', async () => {
  const { id } = await orderAt(cast, 'ready')
  const yusuf = await new Client(server.url).signIn('yusuf.adeyemi-rourke')
  const line = await listen(yusuf)
  await change(id, 'one')
  await until(() => line.heard.some((one) => one.orderId === id))
  const row = (await admin.must(readAccounts, {})).accounts.find((one) => one.email.startsWith('yusuf'))!
  const MUS = (await house.rows<{ id: number }>("SELECT id FROM site WHERE code = 'MUS'"))[0]!.id
  await admin.must(editAccount, { id: row.id, version: row.version, roles: [{ role: 'manager', siteId: MUS }], approvalLimitMinor: null, disabled: false })
  // A line of somebody who still hears says that the round is over.
  const other = await listen(admin)
  const before = line.heard.filter((one) => one.orderId === id).length
  await change(id, 'two')
  await until(() => other.heard.some((one) => one.orderId === id))
  expect(line.heard.filter((one) => one.orderId === id)).toHaveLength(before)
  // Nor of who has a Sheet of that site open; and nobody closes another's screen by its name.
  await cast.coordinator.must(showPresence, { screen: 'the-very-same-screen', type: 'order', id })
  await until(() => other.presences.length > 0)
  expect(line.presences).toEqual([])
  await cast.approver.must(showPresence, { screen: 'the-very-same-screen' })
  const { others } = await cast.clerk.must(showPresence, { screen: 'the-clerks-screen-here', type: 'order', id })
  expect(others.map((one) => one.name)).toContain('Maren Quill')
})

test('a recalled technician hears that a job was taken, without which, and nothing of it afterwards', async () => {
  const { id } = await orderAt(cast, 'dispatched')
  const line = await listen(cast.technician)
  await change(id, 'one')
  await until(() => line.heard.some((one) => one.orderId === id))
  await cast.coordinator.must(recallOrder, { id, version: await version(cast, id) })
  await until(() => line.heard.some((one) => one.kind === 'field.taken'))
  expect(line.heard.at(-1)).toMatchObject({ kind: 'field.taken', orderId: null, requestId: null, visitId: null })
  const before = line.heard.filter((one) => one.orderId === id).length
  const desk = await listen(cast.coordinator)
  await change(id, 'two')
  await until(() => desk.heard.some((one) => one.orderId === id))
  expect(line.heard.filter((one) => one.orderId === id)).toHaveLength(before)
})
