import { dispatchOrder } from '#contract/dispatch'
import type { LiveChange } from '#contract/insight'
import { editOrder } from '#contract/orders'
import { castAt, Client, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

let house: House
let server: Running
let cast: Cast
const lines: Line[] = []

beforeAll(async () => {
  house = await House.open('live')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(async () => {
  lines.forEach((line) => line.close())
  await house?.close()
})

/** A listener on the live line, as a browser's EventSource is one. */
class Line {
  readonly heard: LiveChange[] = []
  last = 0
  private readonly end = new AbortController()

  static async open(client: Client, lastEventId?: number): Promise<Line> {
    const line = new Line()
    lines.push(line)
    const response = await fetch(`${client.url}/api/live`, {
      headers: { Cookie: client.session, ...(lastEventId === undefined ? {} : { 'Last-Event-ID': String(lastEventId) }) },
      signal: line.end.signal,
    })
    void line.read(response)
    return line
  }

  private async read(response: Response): Promise<void> {
    let text = ''
    const decoder = new TextDecoder()
    try {
      for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
        text += decoder.decode(chunk, { stream: true })
        for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
          this.take(text.slice(0, end))
          text = text.slice(end + 2)
        }
      }
    } catch {
      // The line was closed.
    }
  }

  private take(message: string): void {
    const id = /^id: (\d+)/m.exec(message)
    const data = /^data: (.+)/m.exec(message)
    if (id) this.last = Number(id[1])
    if (data && id) this.heard.push(JSON.parse(data[1]!) as LiveChange)
  }

  async until(fits: (heard: LiveChange[]) => boolean): Promise<void> {
    for (let tries = 0; tries < 100 && !fits(this.heard); tries++) await new Promise((resolve) => setTimeout(resolve, 50))
    expect(fits(this.heard)).toBe(true)
  }

  close(): void {
    this.end.abort()
  }
}

test('a dropped line resumes after the last event it saw, missing none and repeating none', async () => {
  const line = await Line.open(cast.coordinator)
  const { id } = await orderAt(cast, 'draft')
  await line.until((heard) => heard.some((change) => change.kind === 'order.create'))
  line.close()
  const seen = line.last
  for (let n = 0; n < 5; n++) await cast.coordinator.must(editOrder, { id, version: await version(cast, id), summary: `Changed ${n}` })
  const again = await Line.open(cast.coordinator, seen)
  await again.until((heard) => heard.length >= 5)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), summary: 'Changed once more' })
  await again.until((heard) => heard.length >= 6)
  expect(again.heard.map((change) => change.kind)).toEqual(Array(6).fill('order.edit'))
  expect(again.heard.map((change) => change.seq)).toEqual(Array.from({ length: 6 }, (_, n) => seen + 1 + n))
})

test('a technician hears of no order before it is approved and theirs', async () => {
  const [line, desk] = [await Line.open(cast.technician), await Line.open(cast.coordinator)]
  const { id } = await orderAt(cast, 'ready')
  // Told of once it is theirs, it would be no secret any more: the desk has heard of it, and so would they have.
  await desk.until((heard) => heard.some((change) => change.orderId === id && change.kind === 'order.approve'))
  await new Promise((resolve) => setTimeout(resolve, 500))
  await cast.coordinator.must(dispatchOrder, {
    id,
    version: await version(cast, id),
    technicianIds: [1],
    start: '2026-11-23T12:00:00Z',
    end: '2026-11-23T13:00:00Z',
  })
  await line.until((heard) => heard.some((change) => change.orderId === id && change.kind === 'order.dispatch'))
  // Changes come in their order: with this one, all that came before it would have been heard.
  expect(line.heard.filter((change) => change.orderId === id).map((change) => change.kind)).toEqual(['order.dispatch'])
})

test('nobody signed in hears nothing', async () => {
  expect((await fetch(`${server.url}/api/live`)).status).toBe(401)
})
