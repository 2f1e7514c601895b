import { agreeWindow } from '#contract/windows'
import { readBoard, rearrange } from '#contract/board'
import { readOrder } from '#contract/orders'
import { readVocabulary } from '#contract/people'
import { addVendor } from '#contract/vendors'
import { castAt, dispatched, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** A day planned on the Board by mouse and by key, what does not fit told before it is put down, and two who plan at once. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let other: Person
beforeAll(async () => {
  house = await House.open('dispatching', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
  other = await (await Person.at(server.url)).signIn('tobias.achterberg')
})
// Nobody has anything to do today but what the test plans.
beforeEach(() => house.rows("UPDATE visit SET state = 'recalled' WHERE state = 'planned'"))
afterAll(async () => {
  for (const person of [desk, other]) await person?.quit()
  await house?.close()
})

async function ready() {
  const { id } = await orderAt(cast, 'ready')
  const { number } = await cast.coordinator.must(readOrder, { id })
  return { id, number }
}
/** Where the visits of an order are, as the server has them. */
async function where(orderId: number) {
  const { people } = await cast.coordinator.must(readBoard, { siteId: 1 })
  return people.flatMap(({ name, visits }) =>
    visits.filter((visit) => visit.orderId === orderId).map(({ from, until }) => `${name} ${from.slice(11, 16)} to ${until.slice(11, 16)}`),
  )
}
const barOf = (number: string) => By.xpath(`//*[contains(@class,'visit')][starts-with(@aria-label, '${number}')]`)
const waits = (number: string) => By.xpath(`//li[contains(@class,'waits')][contains(., '${number}')]`)
const rowOf = (name: string) => By.xpath(`//*[@data-row][.//*[contains(@class,'who')][contains(., '${name}')]]`)

interface Spot {
  x: number
  y: number
}
/** What is on a row of the Board, scrolled to as far down as it takes: rows out of sight are not drawn. */
async function onRows(person: Person, what: By) {
  await person.find(By.css('.scroller [data-row]'))
  await person.until('it is on a row', async () => {
    if ((await person.driver.findElements(what)).length) return true
    await person.driver.executeScript(
      "const all = document.querySelector('.scroller'); const was = all.scrollTop; all.scrollTop += 200; if (all.scrollTop === was) all.scrollTop = 0",
    )
    return false
  })
  // Some rows beyond the edge are drawn as well.
  const found = await person.driver.findElement(what)
  await person.driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", found)
  return found
}
/** Where something is once nothing above it is still to come. */
async function steady(person: Person, what: By) {
  let was = ''
  await person.until('it stays where it is', async () => {
    const now = JSON.stringify(await (await onRows(person, what)).getRect())
    const stays = now === was
    was = now
    if (!stays) await person.driver.sleep(400)
    return stays
  })
  return (await onRows(person, what)).getRect()
}
/** Where an hour of today is on the row of somebody. */
async function spot(person: Person, name: string, hour: number): Promise<Spot> {
  const row = await onRows(person, rowOf(name))
  const track = await row.findElement(By.css('.track'))
  const { hours } = await cast.coordinator.must(readBoard, { siteId: 1 })
  const rect = await track.getRect()
  return { x: Math.round(rect.x + (rect.width * (hour - hours.from)) / (hours.to - hours.from)) + 1, y: Math.round(rect.y + 18) }
}
async function drag(person: Person, from: By, to: Spot | (() => Promise<Spot>), meanwhile: () => Promise<unknown> = () => Promise.resolve()): Promise<void> {
  const element = await person.find(from)
  const rect = await element.getRect()
  const mouse = person.driver.actions({ async: true })
  await mouse
    .move({ x: Math.round(rect.x + 8), y: Math.round(rect.y + 8) })
    .press()
    .move({ x: Math.round(rect.x + 20), y: Math.round(rect.y + 10), duration: 60 })
    .perform()
  // What is picked up may bring other rows into sight.
  const there = typeof to === 'function' ? await to() : to
  await person.driver
    .actions({ async: true })
    .move({ ...there, duration: 120 })
    .perform()
  await meanwhile()
  await person.driver.actions({ async: true }).release().perform()
}

test('work from the list is dragged onto somebody; before it is dropped the Board says with whom it fits and why not', async () => {
  const { id, number } = await ready()
  await desk.go('/board')
  await desk.type('Find', number)
  const to = await spot(desk, 'Bram Oyelaran', 13)
  await drag(desk, waits(number), to, async () => {
    await desk.reads(`${number}: Bram Oyelaran, Mon 23 Nov, 13:00 to 14:00. It fits.`)
    // Everybody else says in a word why not.
    await desk.reads('other trade')
    await desk.reads('fits then')
    expect(await desk.accessibilityFindings()).toEqual([])
  })
  await desk.reads(`${number} dispatched: Bram Oyelaran`)
  expect(await where(id)).toEqual(['Bram Oyelaran 13:00 to 14:00'])
  // A second dispatcher has seen it come, and moves it on; the first sees that.
  await other.go('/board')
  await drag(other, barOf(number), await spot(other, 'Bram Oyelaran', 15.1))
  await other.reads(`${number} moved`)
  await desk.until('the first sees where it is now', async () => (await (await desk.find(barOf(number))).getAttribute('title'))?.includes('15:00') ?? false)
  expect(await where(id)).toEqual(['Bram Oyelaran 15:00 to 16:00'])
})

test('what is dragged to the edge of the rows brings those beyond it into sight; a finger that goes over it scrolls, one that rests on it moves it as the mouse does', async () => {
  const { id, number } = await ready()
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    adds: [{ orderId: id, version: await version(cast, id), technicianId: await bram(), start: '2026-11-23T13:00:00.000Z', end: '2026-11-23T14:00:00.000Z' }],
  })
  await desk.size(1280, 700)
  await desk.go('/board')
  const scrolled = () => desk.driver.executeScript<number>("return document.querySelector('.scroller').scrollTop")
  await desk.find(barOf(number))
  await desk.driver.executeScript("document.querySelector('.scroller').scrollTop = 0")
  const edge = await (await desk.find(By.css('.scroller'))).getRect()
  const low = { x: Math.round(edge.x + edge.width / 2), y: Math.round(edge.y + edge.height - 6) }
  await drag(desk, barOf(number), low, async () => {
    await desk.until('rows beyond come into sight', async () => (await scrolled()) > 40)
    await desk.keys(Key.ESCAPE)
  })
  expect(await where(id)).toEqual(['Bram Oyelaran 13:00 to 14:00'])
  const touch = (type: string, ...points: Spot[]) => desk.driver.sendDevToolsCommand('Input.dispatchTouchEvent', { type, touchPoints: points })
  const within = ({ x, y }: Spot) => ({ x: Math.round(x + 10), y: Math.round(y + 12) })
  const over = within(await steady(desk, barOf(number)))
  const before = await scrolled()
  await touch('touchStart', over)
  for (let step = 1; step <= 4; step++) await touch('touchMove', { x: over.x, y: over.y - step * 20 })
  await touch('touchEnd')
  await desk.until('the rows go along', async () => (await scrolled()) > before)
  const at = within(await steady(desk, barOf(number)))
  await touch('touchStart', at)
  await desk.find(By.css('.ghost'))
  for (let step = 1; step <= 3; step++) await touch('touchMove', { x: at.x + step * 20, y: at.y })
  expect(await where(id)).toEqual(['Bram Oyelaran 13:00 to 14:00'])
  await touch('touchEnd')
  await desk.reads(`${number} moved: Bram Oyelaran`)
  expect((await where(id))[0]).not.toContain('13:00')
  await desk.size(1280, 800)
})

test('what speaks against it asks for a reason, which may be refused; the act is taken back', async () => {
  const { id, number } = await ready()
  await desk.go('/board')
  await desk.type('Find', number)
  // Not an electrician.
  await drag(desk, waits(number), await spot(desk, 'Greta Solheim', 12))
  await desk.reads('Electrical is no trade of Greta Solheim.')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Do it all the same')
  await desk.reads('Say why, or leave it as it was.')
  await desk.press('Leave it as it was')
  expect(await where(id)).toEqual([])
  await drag(desk, waits(number), await spot(desk, 'Greta Solheim', 12))
  await desk.type('Why it is done all the same', 'She changes the tube alone')
  await desk.press('Do it all the same')
  await desk.reads(`${number} dispatched: Greta Solheim`)
  expect(await where(id)).toEqual(['Greta Solheim 12:00 to 13:00'])
  await desk.press('Take back')
  await desk.reads('Taken back')
  expect(await where(id)).toEqual([])
})

test('the same by keys alone: picked up, moved, made longer, handed on, put down, and put back by Escape', async () => {
  const { id, number } = await ready()
  await desk.go('/board')
  await desk.reads('Nobody is planned')
  await desk.keys('f', number)
  await desk.until('nothing else is shown', async () => (await desk.driver.findElements(By.css('li.waits'))).length === 1)
  await desk.keys(Key.ARROW_DOWN, ' ')
  await desk.reads(`${number}: `)
  await desk.keys(Key.ARROW_RIGHT, Key.ENTER)
  await desk.reads(`${number} dispatched`)
  // It has left the list, in which nothing else has these words: the keyboard stays there, and out of the field.
  await desk.until('the keyboard is in the list', async () => (await (await desk.focused()).getAttribute('aria-label')) === 'Nobody is planned')
  const [first] = await where(id)
  const bar = await desk.find(barOf(number))
  await bar.sendKeys(' ')
  await desk.keys(Key.chord(Key.SHIFT, Key.ARROW_RIGHT), '+', Key.ESCAPE)
  expect(await where(id)).toEqual([first])
  await (await desk.find(barOf(number))).sendKeys(' ')
  await desk.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, '+', Key.ENTER)
  await desk.reads(`${number} moved`)
  const moved = (await where(id))[0]!
  const minutes = (text: string) => text.match(/(\d\d):(\d\d)/g)!.map((clock) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3)))
  expect(minutes(moved).map((at, index) => at - minutes(first!)[index]!)).toEqual([30, 45])
  // The keyboard stayed with the visit, and opens it.
  expect(await (await desk.focused()).getAttribute('title')).toContain(number)
  await desk.keys(Key.ENTER)
  await desk.reads('Who fits best')
  expect([await desk.overflow(), await desk.accessibilityFindings()]).toEqual([0, []])
  await desk.keys(Key.ESCAPE)
  await desk.reads('Nobody is planned')

  // To somebody of another trade, which asks for a reason: left, and then given, the keyboard is with the visit again.
  const withVisit = async () => ((await (await desk.focused()).getAttribute('title')) ?? '').includes(number)
  const toGreta = async () => {
    await desk.keys(' ')
    for (let rows = 0; rows < 20 && (await desk.readsNot(`${number}: Greta Solheim`)); rows++) await desk.keys(Key.ARROW_DOWN)
    await desk.keys(Key.ENTER)
    await desk.reads('This speaks against it')
  }
  await toGreta()
  await desk.keys(Key.ESCAPE)
  await desk.until('the keyboard is with the visit', withVisit)
  expect(await where(id)).toEqual([moved])
  await toGreta()
  await desk.keys('She changes the tube alone', Key.ENTER)
  await desk.reads(`${number} moved: Greta Solheim`)
  await desk.until('the keyboard is with the visit that was handed on', withVisit)
})

test('by form: split, one more person, and a whole day given to somebody else in the morning', async () => {
  const { id, number } = await ready()
  await cast.coordinator.must(agreeWindow, { id, version: await version(cast, id), from: '2026-11-23T11:00:00Z', until: '2026-11-23T17:00:00Z' })
  await desk.go('/board')
  await desk.type('Find', number)
  await desk.press(number)
  await desk.reads('Agreed for')
  await desk.pick('Who', 'Sunniva Teague')
  await desk.type('Start', 'today 12:00')
  await desk.leave()
  await desk.reads('Nothing speaks against it.')
  await desk.press('Dispatch', "//form[@aria-label='Who and when']")
  await desk.reads(`${number} dispatched: Sunniva Teague`)
  await desk.driver.executeScript('arguments[0].click()', await desk.find(barOf(number)))
  await desk.press('Add one')
  await desk.pick('Who', 'Bram Oyelaran')
  await desk.press('Send them too')
  await desk.until('two go', async () => (await where(id)).length === 2)
  // Sunniva is sick: her whole day goes to Bram, who is at the same job then.
  await desk.press('Sunniva Teague')
  await desk.reads('Give a whole day to somebody else')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.pick('To', 'Bram Oyelaran')
  await desk.press('Give one visit')
  await desk.reads('is at')
  await desk.type('Why it is done all the same', 'She is sick')
  await desk.press('Do it all the same')
  await desk.until('both are his', async () => (await where(id)).every((one) => one.startsWith('Bram Oyelaran')))
})

test('a plan is computed, held against what stands and made in part; what was made is taken back', async () => {
  await house.rows("UPDATE work_order SET state = 'cancelled' WHERE state = 'ready'")
  const [one, two] = [await ready(), await ready()]
  await desk.go('/board')
  await desk.reads('Nobody is planned')
  await desk.keys('p')
  await desk.reads('Nothing changes until you make its moves.')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Try something else beside it')
  // The one in the head opened this; that of the form asks.
  await (await desk.find(By.css('form[aria-label="What to plan"] button[type="submit"]'))).click()
  await desk.reads('2 moves would be made.')
  const drawn = (which: string) =>
    desk.driver.executeScript<string[]>('return [...document.querySelectorAll(arguments[0])].map((one) => one.textContent)', which)
  // What would be is on the Board before any of it is.
  const digits = (number: string) => number.replace(/^.*-/, '')
  expect((await drawn('.put')).map(digits).sort()).toEqual([one.number, two.number].map(digits).sort())
  await desk.reads('Dashed: where the plan would put a job')
  await desk.reads('Up to 60 min overtime')
  await desk.reads('done within these days')
  expect(await desk.accessibilityFindings()).toEqual([])
  expect([...(await where(one.id)), ...(await where(two.id))]).toEqual([])
  // By key: the tick of one move, and the button that makes it.
  const tick = await desk.find(By.css(`[role="checkbox"][aria-label^="${one.number}"]`))
  await desk.driver.executeScript('arguments[0].focus()', tick)
  await tick.sendKeys(Key.SPACE)
  expect((await drawn('.put.ticked')).map(digits)).toEqual([digits(one.number)])
  await desk.press('Make the one ticked')
  await desk.reads('One move of the plan made.')
  expect((await drawn('.put')).map(digits)).toEqual([digits(two.number)])
  expect(await where(one.id)).toHaveLength(1)
  expect(await where(two.id)).toEqual([])
  await desk.press('Make the move')
  await desk.reads('All of its moves were made.')
  expect(await where(two.id)).toHaveLength(1)
  expect(await drawn('.put')).toEqual([])
  await desk.press('Take back')
  await desk.reads('Taken back')
  expect(await where(two.id)).toEqual([])
  expect(await where(one.id)).toHaveLength(1)
  // What was taken back can be made again, drawn as before.
  await desk.press('Make the move')
  await desk.until('it is made again', async () => (await where(two.id)).length === 1)
  await desk.until('nothing is left to be made', async () => !(await drawn('.put')).length)
})

test('somebody is sick in the morning: the Board says what cannot be made, and a repair of the plan is offered there', async () => {
  const { id, number } = await ready()
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    adds: [{ orderId: id, version: await version(cast, id), technicianId: await bram(), start: '2026-11-23T13:00:00.000Z', end: '2026-11-23T14:00:00.000Z' }],
  })
  await desk.go('/board')
  // Who the pointer rests upon is told of; the name opens them, with the form by which somebody is away.
  const name = await desk.find(By.xpath("//*[contains(@class,'who')]//button[contains(., 'Bram Oyelaran')]"))
  await desk.driver.actions().move({ origin: name }).perform()
  await desk.reads('of it promised')
  await name.click()
  await desk.type('From', '24 Nov 2026')
  await desk.type('Until', '23 Nov 2026')
  await desk.press('Not here then')
  await desk.find(By.css('form[aria-label="Away"] [role="alert"]'))
  await desk.type('From', '23 Nov 2026')
  await desk.press('Not here then')
  await desk.reads(`${number} cannot be made as it is planned: Bram Oyelaran is away then.`)
  await desk.press('Repair the plan')
  await (await desk.find(By.css('form[aria-label="What to plan"] button[type="submit"]'))).click()
  await desk.reads('cannot be made as it stands')
  await (await desk.find(By.xpath("//button[starts-with(normalize-space(), 'Make')][contains(., 'move')]"))).click()
  await desk.reads('All of its moves were made.')
  const [now] = await where(id)
  expect(now).not.toContain('Bram')
  await house.rows(`DELETE FROM \`leave\` WHERE technician_id = ${await bram()} AND from_at = '2026-11-23 00:00:00'`)
})
const bram = async () => (await cast.coordinator.must(readBoard, { siteId: 1 })).people.find(({ name }) => name === 'Bram Oyelaran')!.id

test('work that waits is dragged onto a vendor, who is sent it; what speaks against it asks for a reason', async () => {
  const [first, second] = [await ready(), await ready()]
  const [vendor] = (await cast.coordinator.must(readVocabulary, {})).vendors.filter(({ retired }) => !retired)
  await dispatched(cast, first.id, { vendorId: vendor!.id })
  await cast.coordinator.must(agreeWindow, {
    id: second.id,
    version: await version(cast, second.id),
    from: '2026-11-23T15:00:00.000Z',
    until: '2026-11-23T16:00:00.000Z',
    with: 'Aoife',
  })
  await desk.go('/board')
  await desk.type('Find', second.number)
  await drag(
    desk,
    waits(second.number),
    () => spot(desk, vendor!.name, 13),
    () => desk.reads(`${second.number}: ${vendor!.name}, Mon 23 Nov, 13:00 to 14:00. It was agreed for`),
  )
  await desk.type('Why it is done all the same', 'They come once a week')
  await desk.press('Do it all the same')
  await desk.reads(`${second.number} dispatched: ${vendor!.name}`)
  const { visits } = await cast.coordinator.must(readOrder, { id: second.id })
  expect(visits.map(({ vendorId, plannedStart }) => [vendorId, plannedStart])).toEqual([[vendor!.id, '2026-11-23T13:00:00.000Z']])
})

test('a vendor proposes another time on a phone; the desk takes it on the Board, and it is accepted', async () => {
  const { id: vendorId } = await cast.coordinator.must(addVendor, { name: 'Proposing Ltd', email: 'proposing@vendor.example' })
  const { id, number } = await ready()
  await cast.coordinator.must(agreeWindow, { id, version: await version(cast, id), from: '2026-11-23T11:00:00Z', until: '2026-11-23T13:00:00Z' })
  await dispatched(cast, id, { vendorId })
  const { text } = await house.mail('proposing@vendor.example')
  const phone = await Person.at(server.url, 'phone')
  try {
    await phone.go(/\/p\/[\w-]+/.exec(text)![0])
    await phone.reads('Can you come?')
    expect(await phone.accessibilityFindings()).toEqual([])
    await phone.press('Another time')
    await phone.type('When you could come', 'tomorrow 9:00')
    await phone.type('A line for the desk, if you like', 'The van is back then')
    await phone.press('Propose it')
    await phone.reads('You proposed')
    await desk.go('/board')
    await (await onRows(desk, barOf(number))).click()
    await desk.reads('The van is back then')
    expect(await desk.accessibilityFindings()).toEqual([])
    await desk.press('Take their time')
    // Outside of what is agreed for access: it is asked why.
    await desk.reads('It was agreed for')
    await desk.type('Why it is done all the same', 'Nobody else can come')
    await desk.press('Take their time')
    await desk.until('it is taken', async () => (await answerOf(id)) === 'accepted')
    await phone.go(/\/p\/[\w-]+/.exec(text)![0])
    await phone.reads('You come')
    await phone.press('We do not come')
    await phone.type('Why you do not come', 'The crane broke down')
    await phone.press('Decline the job')
    await phone.reads('You declined this job')
    expect((await cast.coordinator.must(readOrder, { id })).state).toBe('ready')
  } finally {
    await phone.quit()
  }
})
const answerOf = async (id: number) => (await cast.coordinator.must(readOrder, { id })).visits.at(-1)!.answer

test('a vendor is asked for a price from the Sheet, names it on a phone, and it is taken', async () => {
  await cast.coordinator.must(addVendor, { name: 'Pricing Ltd', email: 'pricing@vendor.example' })
  const { id } = await ready()
  await desk.go(`/desk/dispatch/order/${id}`)
  await desk.press('Ask for prices')
  await desk.type('What is wanted, as they will read it', 'Two pumps, fitted')
  await desk.press('Vendors for other trades', "//form[@aria-label='Ask for prices']")
  await desk.press('Pricing Ltd', "//form[@aria-label='Ask for prices']")
  await desk.press('Send the question')
  await desk.reads('One vendor is asked for a price.')
  const { text } = await house.mail('pricing@vendor.example')
  const phone = await Person.at(server.url, 'phone')
  try {
    await phone.go(/\/q\/[\w-]+/.exec(text)![0])
    await phone.reads('Two pumps, fitted')
    expect(await phone.accessibilityFindings()).toEqual([])
    await phone.type('Price before tax', '185.50')
    await phone.type('When you could begin', 'tomorrow 9:00')
    await phone.press('Send the price')
    await phone.reads('You named')
    await desk.reads('the lowest')
    expect(await desk.accessibilityFindings()).toEqual([])
    await desk.press('Take it')
    await desk.reads('The price of Pricing Ltd is taken')
    await phone.go(/\/q\/[\w-]+/.exec(text)![0])
    await phone.reads('Your price was taken')
  } finally {
    await phone.quit()
  }
})

test('while the server is away what was moved is not lost: it is said, still held, and put down once it is back', async () => {
  const { id, number } = await ready()
  await desk.go('/board')
  await desk.type('Find', number)
  await (await desk.find(By.xpath(`//li[contains(@class,'waits')]//button[contains(., '${number}')]`))).sendKeys(' ')
  await desk.reads(`${number}: `)
  const port = new URL(server.url).port
  await server.stop()
  await desk.keys(Key.ARROW_RIGHT, Key.ENTER)
  await desk.reads('cannot be reached')
  server = await house.start({ PORT: port })
  await desk.until('it is put down', async () => {
    await desk.keys(Key.ENTER)
    return (await where(id)).length === 1
  })
  await desk.reads(`${number} dispatched`)
  expect(await where(id)).toHaveLength(1)
})
