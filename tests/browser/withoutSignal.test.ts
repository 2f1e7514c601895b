import { endDevice, listDevices } from '#contract/devices'
import { readJob } from '#contract/field'
import type { JobSheet } from '#contract/field'
import { readOrderTimeline, recallOrder } from '#contract/orders'
import { readSelf } from '#contract/people'
import { Client, castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Person } from '../kit/browser'
import type { Signal } from '../kit/browser'

/** Rounds with the network cut, slowed and brought back, in real browsers. */
let house: House
let server: Running
let cast: Cast
const phones = new Map<string, Person>()
beforeAll(async () => {
  house = await House.open('withoutsignal')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(async () => {
  for (const phone of phones.values()) await phone.quit()
  await house?.close()
})

async function phoneOf(name: string): Promise<Person> {
  const known = phones.get(name)
  if (known) return known
  const phone = await (await Person.at(server.url, 'phone')).signIn(name)
  phones.set(name, phone)
  await phone.go('/rounds')
  // Everything its jobs need is on the phone, and the page itself.
  await phone.until('the phone carries everything along', () =>
    phone.driver.executeAsyncScript<boolean>(`const done = arguments[arguments.length - 1]
      navigator.serviceWorker.ready.then(async ({ active }) => {
        const kept = await caches.keys()
        done(active.state === 'activated' && kept.length > 0 && document.documentElement.dataset.carried === 'yes')
      })`),
  )
  return phone
}
const network = (phone: Person, how: Signal) => phone.signal(how)

/** Numbers that look thrown, the same in each run. */
function thrown(seed: number) {
  let state = seed
  return (below: number) => ((state = (state * 1_103_515_245 + 12_345) % 2 ** 31) >>> 8) % below
}

interface Recorded {
  visitId: number
  says: string
  /** By the phone’s own clock, which is the server’s. */
  from: number
  until: number
}
const KINDS = ['Travel', 'Work', 'Waiting', 'Break'] as const

/** Presses and types on the page that is open, as fast as it takes them; answers once the page has taken it. */
const PRESS = `const [words, text, done] = [arguments[0], arguments[1], arguments[arguments.length - 1]]
  const button = (words) => [...document.querySelectorAll('button')].find((one) => one.innerText.trim() === words && !one.disabled)
  const when = (isSo, then, tries = 400) => { const found = isSo(); if (found) then(found); else if (tries) setTimeout(() => when(isSo, then, tries - 1), 25); else done('never: ' + words) }
  if (text === null) when(() => button(words), (one) => { one.click(); when(() => document.querySelector('[aria-pressed="true"]')?.innerText.trim() === words, () => done('')) })
  else when(() => button('Note'), (one) => { one.click(); when(() => document.querySelector('form textarea'), (area) => {
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set.call(area, text)
    area.dispatchEvent(new Event('input', { bubbles: true }))
    when(() => button('Add the note'), (add) => { add.click(); when(() => !document.querySelector('form textarea'), () => done('')) }) }) })`

/** One phone’s day on its jobs: so many acts, the network as it comes, the page killed and opened again in between. */
async function day(phone: Person, visits: number[], acts: number, seed: number): Promise<Recorded[]> {
  const next = thrown(seed)
  const recorded: Recorded[] = []
  const clocks = new Map<number, string>()
  let at = -1
  let line: Signal = 'whole'
  const openJob = async (visitId: number, act: number) => {
    await phone.go(`/rounds/${visitId}`)
    await phone.find(By.css('[aria-label="Clock"]')).catch(async () => {
      throw new Error(`no job (act ${act}, line ${line}): ${await phone.driver.findElement(By.css('body')).getText()}`)
    })
    at = visitId
  }
  for (let act = 0; act < acts; act++) {
    if (act % 9 === 4) await network(phone, (line = (['cut', 'slow', 'whole', 'cut'] as const)[next(4)]!))
    // Each job has its turn; its clock is stopped before the next one's begins.
    const visitId = visits[Math.floor((act / acts) * visits.length)]!
    if (visitId !== at) {
      if (at > 0) {
        await phone.press('Stop the clock')
        await phone.reads('The clock is not running')
      }
      await openJob(visitId, act)
    } else if (next(14) === 0) {
      await phone.driver.get('about:blank')
      await openJob(visitId, act)
    }
    const kind = KINDS.filter((one) => one !== clocks.get(visitId))[next(3)]!
    const isNote = clocks.has(visitId) && next(5) > 1
    const says = isNote ? `Note ${seed}-${act}` : kind
    if (!isNote) clocks.set(visitId, kind)
    const from = Date.now()
    const went = await phone.driver.executeAsyncScript<string>(PRESS, isNote ? 'Note' : kind, isNote ? says : null)
    if (went) throw new Error(`${went} (act ${act}) ${await phone.driver.findElement(By.css('body')).getText()}`)
    recorded.push({ visitId, says, from, until: Date.now() })
  }
  await phone.press('Stop the clock')
  await network(phone, 'whole')
  await phone.go('/rounds')
  await phone.until('everything is sent', async () => (await lying(phone)).acts === 0)
  return recorded
}

test('two hundred acts on two phones with the network cut, slowed and back: the server holds each once, in order, with its moment', async () => {
  const jobsFor = async (technicianId: number) => [
    await orderAt(cast, 'dispatched', { technicianIds: [technicianId] }),
    await orderAt(cast, 'dispatched', { technicianIds: [technicianId] }),
  ]
  const jobs = { 'bram.oyelaran': await jobsFor(1), 'sunniva.teague': await jobsFor(2) }
  const offset = await clockOffset()
  const days = await Promise.all(
    Object.entries(jobs).map(async ([name, mine], index) => {
      const phone = await phoneOf(name)
      const recorded = await day(
        phone,
        mine.map(({ visitId }) => visitId),
        100,
        index + 11,
      )
      return { name, mine, recorded }
    }),
  )
  for (const { name, mine, recorded } of days) {
    expect(recorded).toHaveLength(100)
    const who = await new Client(server.url).signIn(name)
    for (const { visitId } of mine) {
      const sheet = await who.must(readJob, { visitId: visitId })
      const held = heldBy(sheet)
      const mineOf = recorded.filter((one) => one.visitId === visitId)
      expect(held.map(({ says }) => says)).toEqual(mineOf.map(({ says }) => says))
      held.forEach(({ at }, index) => {
        const { from, until } = mineOf[index]!
        expect(at - offset).toBeGreaterThanOrEqual(from - 1_500)
        expect(at - offset).toBeLessThanOrEqual(until + 1_500)
      })
      expect(sheet.running).toBeNull()
    }
  }
})

/** What lies on a phone, as whoever looks into the browser's own database finds it. */
const lying = (phone: Person) =>
  phone.driver.executeAsyncScript<{ text: string; copies: number; holders: number; acts: number }>(`const done = arguments[arguments.length - 1]
    const open = indexedDB.open('evrix')
    open.onsuccess = async () => {
      const all = (name) => new Promise((resolve) => { const asked = open.result.transaction(name).objectStore(name).getAll(); asked.onsuccess = () => resolve(asked.result) })
      const [copies, acts, files, holders] = await Promise.all(['copies', 'acts', 'files', 'holders'].map(all))
      const text = [...copies, ...acts, ...files].map((one) => Object.values(one).join(' ') + new TextDecoder('latin1').decode(one.sealed.content)).join(' ')
      open.result.close()
      done({ text, copies: copies.length, holders: holders.length, acts: acts.length })
    }`)

/** Everything a job holds that was recorded, in the order of its moments. */
const heldBy = ({ notes, stints }: JobSheet) =>
  [
    ...notes.map(({ at, text }) => ({ at: new Date(at).getTime(), says: text })),
    ...stints.map(({ startAt, kind }) => ({ at: new Date(startAt).getTime(), says: KINDS.find((one) => one.toLowerCase() === kind)! })),
  ].sort((a, b) => a.at - b.at)

/** By how much the server’s clock is ahead of ours. */
async function clockOffset(): Promise<number> {
  const { headers } = await cast.coordinator.call(readSelf, {})
  return new Date(headers.get('X-Evrix-Now')!).getTime() - Date.now()
}

/** Each test begins with a signal. */
afterEach(() => Promise.all([...phones.values()].map((phone) => network(phone, 'whole'))))

test('a job taken back while the phone was without signal: what was recorded is shown beside what the desk says, and left out in words', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched', { technicianIds: [1] })
  const phone = await phoneOf('bram.oyelaran')
  await phone.go(`/rounds/${visitId}`)
  await phone.find(By.css('[aria-label="Clock"]'))
  await network(phone, 'cut')
  await phone.driver.executeAsyncScript(PRESS, 'Work', null)
  await phone.driver.executeAsyncScript(PRESS, 'Note', 'The stopcock is behind the panel')
  await phone.reads('Waits on this phone')
  await cast.coordinator.must(recallOrder, { id, version: await version(cast, id), reason: 'Given to others' })
  await network(phone, 'whole')
  await phone.go('/rounds')
  await phone.reads('Not taken')
  await phone.reads('Clock set to work')
  for (let left = 2; left > 0; left--) {
    await phone.press('Leave it out and tell the desk')
    await phone.until('one fewer', async () => (await phone.driver.findElements(By.css('[aria-label="Not sent yet"] article'))).length === (left > 1 ? 1 : 0))
  }
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.filter(({ kind }) => kind === 'field.unsent').map(({ details }) => details?.what)).toEqual([
    'Note: The stopcock is behind the panel',
    'Clock set to work',
  ])
})

test('the clock is moved from one job to another in one press, also without signal', async () => {
  const [first, second] = [await orderAt(cast, 'dispatched'), await orderAt(cast, 'dispatched')]
  const phone = await phoneOf('bram.oyelaran')
  await phone.go('/rounds')
  await phone.reads('Rounds')
  // Both are on the phone before it goes where there is none.
  await phone.until(
    'both are carried',
    async () => (await phone.driver.findElements(By.css(`a[href="/rounds/${first.visitId}"], a[href="/rounds/${second.visitId}"]`))).length === 2,
  )
  for (const { visitId } of [second, first]) {
    await phone.go(`/rounds/${visitId}`)
    await phone.find(By.css('[aria-label="Clock"]'))
  }
  await network(phone, 'cut')
  await phone.driver.executeAsyncScript(PRESS, 'Work', null)
  await phone.go(`/rounds/${second.visitId}`)
  await phone.press('Travel')
  await phone.reads('Stop it there first')
  await phone.press('Stop it there and start here')
  await phone.find(By.css('[aria-pressed="true"]'))
  await network(phone, 'whole')
  await phone.until('both are there', async () => (await cast.technician.must(readJob, { visitId: second.visitId })).running?.kind === 'travel')
  const { stints, running } = await cast.technician.must(readJob, { visitId: first.visitId })
  expect([running, stints.map(({ kind }) => kind)]).toEqual([null, ['work']])
  await phone.press('Stop the clock')
  await phone.reads('The clock is not running')
  await phone.until('that is sent', async () => (await lying(phone)).acts === 0)
})

test('who signs out with something unsent is warned; a phone that was lost and ended keeps nothing that can be read', async () => {
  const { visitId } = await orderAt(cast, 'dispatched', { technicianIds: [1] })
  const phone = await phoneOf('bram.oyelaran')
  await phone.go(`/rounds/${visitId}`)
  await phone.find(By.css('[aria-label="Clock"]'))
  await network(phone, 'cut')
  await phone.driver.executeAsyncScript(PRESS, 'Work', null)
  await phone.go('/rounds')
  await phone.press('Sign out')
  await phone.reads('Not everything is sent')
  await phone.press('Stay signed in')
  // What lies on it says nothing to whoever looks into the browser's own database.
  const before = await lying(phone)
  expect([before.copies > 3, before.acts, before.holders]).toEqual([true, 1, 1])
  const sheet = await cast.technician.must(readJob, { visitId: visitId })
  for (const words of [sheet.summary, sheet.number, sheet.description]) expect(before.text).not.toContain(words)

  const admin = await new Client(server.url).signIn('wendeline.stroud')
  const { accountId } = (await cast.technician.must(readSelf, {})) as { accountId: number }
  const { rows } = await admin.must(listDevices, { accountId })
  for (const { id } of rows) await admin.must(endDevice, { accountId, id })
  await network(phone, 'whole')
  await phone.go('/rounds')
  await phone.reads('Sign in')
  await phone.until('the key is gone', async () => (await lying(phone)).holders === 0)
  expect(await lying(phone)).toMatchObject({ copies: 0, acts: 1 })

  // It is found again: whoever signs in on it has it back, with what was not sent.
  await phone.signIn('bram.oyelaran')
  await phone.go('/rounds')
  await phone.until('it is sent', async () => (await cast.technician.must(readJob, { visitId: visitId })).running?.kind === 'work')

  // Signed out with nothing left to send, nothing is left to read either.
  await phone.until('nothing waits', async () => (await lying(phone)).acts === 0)
  await phone.go('/rounds')
  await phone.press('Sign out')
  await phone.reads('Mail address')
  await phone.until('nothing is left', async () => (await lying(phone)).holders === 0)
  expect(await lying(phone)).toMatchObject({ copies: 0, acts: 0 })
})
