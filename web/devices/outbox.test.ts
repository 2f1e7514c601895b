import 'fake-indexeddb/auto'
import fc from 'fast-check'
import type { Problem } from '#contract/kit'
import { Box } from './box'
import { dropCopies, keepAs, keptAs } from './kept'
import { Outbox } from './outbox'
import type { Act, ActBody } from './outbox'
import { Seal } from './seal'

const KEY = '00112233445566778899aabbccddeeff00112233445566778899aabbccddeeff'
const note = (visitId: number, text: string): ActBody => ({ name: 'note', visitId, at: `2026-11-23T10:00:00.${text.padStart(3, '0')}Z`, input: { text } })
const problem = (status: number, code = 'x'): Problem => ({ type: 'about:blank', title: 'No', status, detail: 'No.', reasons: [{ code, sentence: 'No.' }] })

/** A server that takes every key once, over a line that fails as it is told: before the act arrives, or after it was done. */
class Server {
  readonly held: { key: string; text: string; visitId: number }[] = []
  /** What happens to the next sendings, one after another; nothing more, and all goes well. */
  line: ('lost' | 'unanswered' | 'busy' | 'signed out')[] = []
  refuses = new Set<string>()

  take = async ({ key, body }: Act): Promise<string> => {
    await Promise.resolve()
    const now = this.line.shift()
    if (now === 'lost') throw { problem: problem(0) }
    if (now === 'busy') throw { problem: problem(503) }
    if (now === 'signed out') throw { problem: problem(401) }
    const { text } = body.input as { text: string }
    if (this.refuses.has(text)) throw { problem: problem(422) }
    if (!this.held.some((one) => one.key === key)) this.held.push({ key, text, visitId: body.visitId })
    if (now === 'unanswered') throw { problem: problem(0) }
    return `done ${text}`
  }
}

let names = 0
/** One page after another on the same device. */
function device(server: Server) {
  const name = `box-${++names}`
  let keys = 0
  let last: Promise<unknown> = Promise.resolve()
  const alone = <T>(work: () => Promise<T>): Promise<T> => {
    const mine = last.then(work, work)
    last = mine.catch(() => undefined)
    return mine
  }
  return {
    name,
    async page(seal?: Seal, accountId = 7) {
      const box = await Box.open(name)
      const outbox = new Outbox({
        box,
        seal: seal ?? (await Seal.of(KEY)),
        accountId,
        send: server.take,
        copiesOf: () => Promise.resolve([]),
        alone,
        freshKey: () => `key-${name}-${accountId}-${++keys}`,
        changed: () => undefined,
      })
      return { box, outbox }
    },
  }
}

test('an act is sent at once, and what the server answers is told', async () => {
  const server = new Server()
  const { outbox } = await device(server).page()
  const { outcome } = await outbox.record(note(1, '1'))
  await expect(outcome).resolves.toEqual({ is: 'sent', answer: 'done 1' })
  expect(await outbox.acts()).toEqual([])
})

test('without signal it waits, says so, and goes in order when there is some', async () => {
  const server = new Server()
  const { outbox } = await device(server).page()
  server.line = ['lost', 'busy', 'signed out']
  for (const text of ['1', '2', '3']) await expect((await outbox.record(note(1, text))).outcome).resolves.toEqual({ is: 'waits' })
  expect(server.held).toEqual([])
  await outbox.flush()
  expect(server.held.map(({ text }) => text)).toEqual(['1', '2', '3'])
})

test('an answer that is lost is asked for again under the same key, by the next page too; one that nobody keeps any more counts as done', async () => {
  const server = new Server()
  const one = device(server)
  const { outbox } = await one.page()
  server.line = ['unanswered']
  await (
    await outbox.record(note(1, '1'))
  ).outcome
  const again = await one.page()
  await again.outbox.flush()
  expect([server.held.length, (await again.outbox.acts()).length]).toEqual([1, 0])
  server.take = () => Promise.reject({ problem: problem(409, 'done_before') })
  const late = await device(server).page()
  await expect((await late.outbox.record(note(1, '2'))).outcome).resolves.toEqual({ is: 'sent', answer: undefined })
})

test('what is refused stays with why; later acts on its job wait, those on others do not; put right, all go', async () => {
  const server = new Server()
  const { outbox } = await device(server).page()
  server.refuses.add('2')
  server.line = ['lost']
  for (const [visitId, text] of [
    [1, '1'],
    [1, '2'],
    [1, '3'],
    [5, '4'],
  ] as const)
    await outbox.record(note(visitId, text))
  await outbox.flush()
  expect(server.held.map(({ text }) => text)).toEqual(['1', '4'])
  const [refused, behind] = await outbox.acts()
  expect([refused!.body.problem?.status, behind!.body.problem]).toEqual([422, undefined])
  await outbox.retry(refused!, note(1, '9'))
  await outbox.flush()
  expect(server.held.map(({ text }) => text)).toEqual(['1', '4', '9', '3'])
})

test('what is left out goes, with the photo it carried', async () => {
  const server = new Server()
  const { outbox, box } = await device(server).page()
  server.refuses.add('2')
  const { outcome } = await outbox.record({ ...note(1, '2'), fileId: 'act-1' }, { bytes: new Uint8Array([1, 2, 3]).buffer, mime: 'image/jpeg' })
  expect((await outcome).is).toBe('refused')
  expect((await box.file(7, 'act-1'))?.bytes).toBe(3)
  await outbox.leave((await outbox.acts())[0]!)
  expect([await outbox.acts(), await box.file(7, 'act-1')]).toEqual([[], undefined])
})

test('nothing that lies on the device can be read without its key, nor by whoever signs in next', async () => {
  const server = new Server()
  const one = device(server)
  const { outbox, box } = await one.page()
  server.line = ['lost']
  await outbox.record(note(1, 'the alarm code is 4711'))
  const lying = JSON.stringify(await box.acts(7), (_, value: unknown) => (value instanceof ArrayBuffer ? new TextDecoder('latin1').decode(value) : value))
  expect(lying).not.toContain('4711')
  const stranger = await one.page(await Seal.of(KEY.replace('00', 'ff')))
  expect(await stranger.outbox.acts()).toEqual([])
  const other = await one.page(undefined, 8)
  await other.outbox.flush()
  expect(server.held).toEqual([])
  // Once its own key is back, nothing of it is lost.
  await box.lock(7)
  await (await one.page()).outbox.flush()
  expect(server.held.map(({ text }) => text)).toEqual(['the alarm code is 4711'])
})

test('what is known of a place goes after three days, unless it was looked at again; of jobs, what is not carried', async () => {
  const mine = { box: await Box.open('box-spots'), seal: await Seal.of(KEY), accountId: 7 }
  const [once, again, search, job] = ['/api/rounds-spot?placeId=1', '/api/rounds-spot?placeId=2', '/api/rounds-spots?code=A', '/api/rounds/5']
  const clock = jest.spyOn(Date, 'now')
  const after = (days: number) => clock.mockReturnValue(Date.UTC(2026, 10, 23) + days * 86_400_000)
  after(0)
  for (const name of [once, again, search, job, '/api/rounds/6']) await keepAs(mine, name, 'first')
  await keepAs({ ...mine, accountId: 8 }, once, 'of another')
  after(2.9)
  await keepAs(mine, again, 'second')
  await dropCopies(mine, new Set([5]))
  const left = () => Promise.all([once, again, search, job, '/api/rounds/6'].map((name) => keptAs(mine, name)))
  expect(await left()).toEqual(['first', 'second', 'first', 'first', null])
  after(3.1)
  await dropCopies(mine, new Set([5]))
  clock.mockRestore()
  expect(await left()).toEqual([null, 'second', null, 'first', null])
  expect(await keptAs({ ...mine, accountId: 8 }, once)).toBe('of another')
})

/** What can happen on a phone between one act and the next. */
const happening = fc.oneof(
  { weight: 6, arbitrary: fc.record({ is: fc.constant('act' as const), visitId: fc.integer({ min: 1, max: 3 }) }) },
  { weight: 3, arbitrary: fc.record({ is: fc.constant('line' as const), now: fc.constantFrom('lost', 'unanswered', 'busy', 'signed out') }) },
  { weight: 2, arbitrary: fc.record({ is: fc.constant('killed' as const) }) },
  { weight: 2, arbitrary: fc.record({ is: fc.constant('signal' as const) }) },
)

test('whatever breaks, on two phones at once: every act is held exactly once, in the order of its phone, with its moment', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(fc.integer({ min: 0, max: 1 }), happening), { maxLength: 60 }), async (happenings) => {
      const server = new Server()
      const phones = [device(server), device(server)]
      const pages = await Promise.all(phones.map((phone) => phone.page()))
      const recorded: string[][] = [[], []]
      let acts = 0
      for (const [which, one] of happenings) {
        if (one.is === 'act') {
          const text = String(++acts)
          recorded[which]!.push(text)
          await pages[which]!.outbox.record(note(one.visitId, text))
        } else if (one.is === 'line') server.line.push(one.now)
        else if (one.is === 'signal') void pages[which]!.outbox.flush()
        else {
          // The page is gone in the middle of whatever it did; the device is opened again.
          pages[which] = await phones[which]!.page()
        }
      }
      server.line = []
      for (const page of pages) await page.outbox.flush()
      const held = (phone: (typeof phones)[number]) => server.held.filter(({ key }) => key.startsWith(`key-${phone.name}-`)).map(({ text }) => text)
      expect(phones.map(held)).toEqual(recorded)
      expect(await Promise.all(pages.map(({ outbox }) => outbox.acts()))).toEqual([[], []])
    }),
    { numRuns: 60 },
  )
})
