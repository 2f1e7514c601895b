import { acceptRequest, enterCall, listRequests, readRequest, triageRequest } from '#contract/requests'
import { cancelOrder, readOrder } from '#contract/orders'
import { Client, House } from '../kit'
import type { Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Deciding fast, lists, and working together, as people use them. */
let house: House
let server: Running
let desk: Person
let maren: Client

beforeAll(async () => {
  house = await House.open('listsdesk')
  server = await house.start()
  desk = await (await Person.at(server.url)).signIn('maren.quill')
  maren = await new Client(server.url).signIn('maren.quill')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})

const address = () => desk.driver.getCurrentUrl()
const focusedId = async (person = desk) => (await person.focused()).getAttribute('id')
const call = (summary: string, placeId = 20, payerId: number | null = null) =>
  maren.must(enterCall, { siteId: 1, placeId, summary, description: 'Told by phone, seen with their own eyes.', ...(payerId ? { payerId } : {}) })
/** A draft of its own, with these words. */
async function draft(summary: string, placeId = 20): Promise<{ id: number; number: string }> {
  const { id } = await call(summary, placeId)
  const { version } = await maren.must(triageRequest, { id, version: 1, categoryId: 1, consequence: 'one_person', urgency: 'today', payerId: 3 })
  const { orderId, orderNumber } = await maren.must(acceptRequest, { id, version })
  return { id: orderId, number: orderNumber }
}

describe('ten requests triaged by keyboard only', () => {
  const SAID = [
    'Tap drips',
    'Toilet keeps running',
    'Socket by the desk is dead',
    'Ceiling light flickers',
    'Door does not lock',
    'Drain is blocked',
    'Room does not get warm',
    'Shelf is coming off the wall',
    'Smoke detector beeps',
    'Shower has no pressure',
  ]

  test('each in a handful of keys, without leaving the queue', async () => {
    // Nothing but these stands in Intake.
    await house.rows("UPDATE request SET taken_up_at = '2026-11-23 08:00', taken_up_by = 1 WHERE state = 'new' AND taken_up_at IS NULL")
    const made: number[] = []
    for (const summary of SAID) made.push((await call(summary, 100, 3)).id)
    await desk.go('/desk/intake')
    await desk.until('ten rows', async () => (await desk.driver.findElements(By.css('ol .row'))).length === 10)
    let pressed = 0
    const press = async (...keys: string[]) => {
      for (const key of keys) {
        await desk.keys(key)
        pressed += key.length
      }
    }
    await press(Key.ARROW_DOWN)
    for (const [index, id] of made.entries()) {
      await desk.until(`request ${index + 1} open`, async () => (await address()).includes(`/request/${id}`))
      await desk.until('a suggestion', async () => (await desk.driver.findElements(By.xpath("//button[contains(., 'Take it')][.//kbd='G']"))).length > 0)
      await press('g')
      await desk.until('the grid', async () => (await desk.focused().then((one) => one.getAttribute('aria-label'))) === 'Nobody affected, Can wait: Deferred')
      // One person, today.
      await press('2', '3')
      await desk.until('back on the Sheet', async () => (await focusedId()) === 'sheet')
      await desk.until(
        'it can be accepted',
        async () => (await desk.driver.findElements(By.xpath("//button[starts-with(normalize-space(.), 'Accept, on to the next')]"))).length > 0,
      )
      await press('k')
    }
    await desk.until('all accepted', async () => (await maren.must(listRequests, { station: 'intake' })).rows.length === 0)
    for (const id of made) expect((await maren.must(readRequest, { id })).state).toBe('accepted')
    console.log(`ten requests triaged: ${pressed} keystrokes, ${(pressed / 10).toFixed(1)} each`)
    expect(pressed).toBeLessThanOrEqual(60)
  })
})

test('an outcome is taken back by a key, and not once somebody else has acted', async () => {
  const { id } = await call('Blind hangs crooked', 100, 3)
  await maren.must(triageRequest, { id, version: 1, categoryId: 1, consequence: 'one_person', urgency: 'today' })
  await desk.go(`/desk/triage/request/${id}`)
  await desk.find(By.css('[data-move="accept"]'))
  await desk.keys('d')
  await desk.until('the reason', async () => (await focusedId()) === 'move-reason')
  await desk.keys('It belongs to the tenant.')
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform()
  await desk.reads('You can take that back until somebody else acts on it.')
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('y')
  await desk.reads('is undecided again.')
  expect((await maren.must(readRequest, { id })).state).toBe('new')
  // One request, two jobs.
  await desk.keys('a')
  await desk.reads('Missing before it can be submitted')
  await desk.go(`/desk/triage/request/${id}`)
  await desk.move('Make another order of it')
  await desk.type('What the other order is about', 'Paint the frame afterwards')
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform()
  await desk.reads('as well.')
  const { orders } = await maren.must(readRequest, { id })
  expect(orders.map((order) => order.summary).sort()).toEqual(['Blind hangs crooked', 'Paint the frame afterwards'])
  const tobias = await new Client(server.url).signIn('tobias.achterberg')
  const second = await maren.must(readOrder, { id: orders.find((order) => order.summary.startsWith('Paint'))!.id })
  await tobias.must(cancelOrder, { id: second.id, version: second.version, reason: 'Done already' })
  await desk.reads('It cannot be taken back any more: Tobias Achterberg has acted on it since')
})

test('an asset that says otherwise: both are shown, each is chosen', async () => {
  const [freezer] = await house.rows<{ id: number; place_id: number }>("SELECT id, place_id FROM asset WHERE tag = 'F-003'")
  const { id } = await call('Freezer door is loose', 20, 3)
  await desk.go(`/desk/triage/request/${id}`)
  await desk.pick('Asset', 'F-003')
  await desk.reads('says otherwise')
  await desk.driver.findElement(By.xpath("//fieldset[legend='Payer']//label[contains(., 'Take')]")).click()
  await desk.press('Choose the asset')
  await desk.until('saved', async () => (await maren.must(readRequest, { id })).asset?.id === freezer!.id)
  const now = await maren.must(readRequest, { id })
  // The place was kept, the payer taken.
  expect([now.place!.id, now.payerId]).toEqual([20, 1])
})

describe('lists', () => {
  test('the address holds what is shown; the keyboard moves, marks, peeks, opens and comes back', async () => {
    await desk.go('/lists')
    await desk.reads('Outstanding')
    await desk.until('in the address', async () => (await address()).includes('view=outstanding'))
    await desk.until('rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length > 5)
    await desk.keys(Key.ARROW_DOWN, Key.ARROW_DOWN)
    await desk.until('on the second row', async () => (await focusedId()) === 'line-row-1')
    await desk.keys(' ')
    await desk.until('the essentials', async () => (await desk.driver.findElements(By.css('[aria-label="Essentials"] dl'))).length === 1)
    await desk.keys(Key.ESCAPE, 'm')
    await desk.reads('1 row marked')
    await desk.keys(Key.ENTER)
    await desk.until('opened', async () => /open=\d+/.test(await address()))
    await desk.until('the Sheet', async () => (await desk.driver.findElements(By.css('#list-sheet article'))).length === 1)
    // Opening loses neither the mark nor the place in the list.
    await desk.reads('1 row marked')
    expect((await desk.driver.findElements(By.css('tr.row.at.here'))).length).toBe(1)
    await desk.keys(Key.ESCAPE)
    await desk.until('closed', async () => !/open=\d+/.test(await address()))
    // Sent to somebody else, the address shows the same.
    await desk.load('/lists/orders?state=closed&sort=-closed&size=10&columns=number,summary,closed&rows=compact')
    await desk.until('ten rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length === 10)
    await desk.press('Next')
    await desk.reads('11–20')
    await desk.press('Previous')
    await desk.reads('1–10')
    // Another order by its heading, turned round by a second press; the essentials under the pointer.
    await desk.press('Number', '//thead')
    await desk.until('by number', async () => (await address()).includes('sort=-number'))
    await desk.press('Number', '//thead')
    await desk.until('turned round', async () => (await address()).includes('sort=number'))
    await desk.driver
      .actions()
      .move({ origin: await desk.find(By.id('line-row-3')) })
      .perform()
    await desk.until('the essentials', async () => (await desk.driver.findElements(By.css('[aria-label="Essentials"] dl'))).length === 1)
    await desk.press('Columns')
    await desk.press('Trade')
    await desk.until('a column more', async () => (await address()).includes('trade'))
    await desk.keys(Key.ESCAPE)
  })

  test('a filter is added by its form, said in a chip, changed and taken away', async () => {
    await desk.go('/lists/orders')
    await desk.until('rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length > 5)
    await desk.pick('Add a filter', 'Estimate')
    await desk.type('From', '500')
    await desk.press('Filter')
    await desk.reads('Estimate: from 500.00')
    await desk.until('in the address', async () => (await address()).includes('estimate=50000..'))
    await desk.pick('Add a filter', 'Finished')
    await desk.type('From', 'soon')
    await desk.press('Filter')
    await desk.reads('Write a day like 2026-11-25, today, -30d or 7d.')
    await desk.press('Last 30 days')
    await desk.press('Filter')
    await desk.reads('Finished: from 30 days ago')
    // By keyboard: F, some letters, Enter; and the keyboard is the list's again.
    await desk.keys('f', 'Prio', Key.ENTER)
    await desk.until('its form', async () => (await desk.driver.findElements(By.css('[role="dialog"][aria-label="Filter by Priority"]'))).length === 1)
    await desk.keys(Key.ESCAPE)
    await desk.until('closed', async () => (await desk.driver.findElements(By.css('[role="dialog"][aria-label="Filter by Priority"]'))).length === 0)
    await desk.keys(Key.ARROW_DOWN)
    await desk.until('in the rows', async () => ((await focusedId()) ?? '').startsWith('line-row'))
    await desk.driver.findElement(By.css('[aria-label="Take the filter Finished away"]')).click()
    await desk.until('away', async () => !(await address()).includes('finished'))
    expect(await desk.readsNot('Finished: from')).toBe(true)
  })

  test('all of a long list: only what is in sight is drawn, more is read while scrolling', async () => {
    await desk.go('/lists/orders?size=all&rows=compact&sort=-number')
    await desk.until('rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length > 10)
    const read = async () => Number(/([\d,]+)\s+read/.exec(await (await desk.find(By.css('.foot'))).getText())![1]!.replace(',', ''))
    expect(await read()).toBe(100)
    for (let n = 0; n < 4; n++) {
      const before = await read()
      await desk.driver.executeScript("const box = document.querySelector('.scroll'); box.scrollTop = box.scrollHeight")
      await desk.until('more read', async () => (await read()) > before)
    }
    expect(await read()).toBe(500)
    expect((await desk.driver.findElements(By.css('tr.row'))).length).toBeLessThan(80)
  })

  test('grouped: how many, how many past; a group opens to its rows', async () => {
    await desk.go('/lists/orders?state=draft,to_approve,ready,dispatched,on_job,on_hold&group=trade')
    await desk.press('Plumbing')
    await desk.until('rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length > 2)
    await desk.press('Show as a list')
    await desk.until('a list', async () => /trade=\d/.test(await address()) && !(await address()).includes('group='))
  })

  test('a view is saved, shared with the team, opened by another, made the usual one', async () => {
    await desk.go('/lists/orders?state=ready,dispatched&priority=urgent&sort=priority')
    await desk.until('rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length > 0)
    await desk.keys('w')
    await desk.type('Name', 'Urgent and not there yet')
    await desk.press('Your team, Help desk')
    await desk.press('Save', '//form')
    await desk.until('a view of its own', async () => /view=v\d+/.test(await address()))
    const other = await (await Person.at(server.url)).signIn('tobias.achterberg')
    await other.go('/lists')
    await other.press('Urgent and not there yet')
    await other.reads('State: Ready or Dispatched')
    await other.reads('Priority: Urgent')
    await other.reads('by Maren Quill')
    await other.press('Open lists with this view')
    await other.go('/lists')
    await other.until('the usual view', async () => (await other.driver.getCurrentUrl()).includes('priority=urgent'))
    // Changed by whoever looks, it is theirs to keep under another name, not to overwrite.
    await other.choose('Group', 'Trade')
    await other.reads('Urgent and not there yet, changed')
    await other.keys('w')
    expect(await other.readsNot('Change “Urgent')).toBe(true)
    await other.quit()
  })
})

test('many at once: what went, what did not and why; taken back', async () => {
  const [a, b] = [await draft('Bulk one'), await draft('Bulk two')]
  const [done] = await house.rows<{ id: number; number: string }>("SELECT id, number FROM work_order WHERE state = 'done' LIMIT 1")
  await house.rows("UPDATE work_order SET summary = 'Bulk three' WHERE id = ?", [done!.id])
  await desk.go('/lists/orders?summary=Bulk&state=draft,done,cancelled')
  await desk.until('three rows', async () => (await desk.driver.findElements(By.css('tr.row'))).length === 3)
  await (await desk.find(By.css('[aria-label="Mark every row shown"]'))).click()
  await desk.reads('3 rows marked')
  await desk.choose('What to do with them', 'Cancel the order (fits 2)')
  await desk.find(By.id('bulk-reason'))
  await desk.press('Cancel the order')
  await desk.reads('Write the reason in a few words.')
  await (await desk.find(By.id('bulk-reason'))).sendKeys('The wing closes')
  await desk.press('Cancel the order')
  await desk.reads('Cancel the order: 2 of 3 went')
  await desk.reads(`The order is done`)
  for (const { id } of [a, b]) expect((await maren.must(readOrder, { id })).state).toBe('cancelled')
  await desk.press('Take back the 2 that went, as drafts')
  await desk.reads('Reopen: 2 of 2 went')
  await desk.press('Close')
  for (const { id } of [a, b]) expect((await maren.must(readOrder, { id })).state).toBe('draft')
  await desk.reads('1 row marked')
})

test('removing an order from a group leaves it whole; discarding is a separate act that can be undone', async () => {
  const [lead, member] = [await draft('Group lead'), await draft('Group member')]
  await desk.go(`/desk/planning/order/${lead.id}`)
  await desk.press('Put an order under this one')
  await desk.pick('Order to put under this one', member.number)
  await desk.reads('It is in the group.')
  await desk.until('the member', async () => (await maren.must(readOrder, { id: lead.id })).members.length === 1)
  const before = await maren.must(readOrder, { id: member.id })
  await (await desk.find(By.css(`[aria-label="Take ${member.number} out of the group"]`))).click()
  await desk.reads(`${member.number} is out of the group, and whole.`)
  const after = await maren.must(readOrder, { id: member.id })
  const whole = (sheet: typeof after) => ({ ...sheet, version: 0, timeline: [], lead: null, gauge: null })
  expect(whole(after)).toEqual(whole(before))
  await desk.go(`/desk/planning/order/${member.id}`)
  await desk.reads('Group member')
  await desk.move('Discard the draft')
  await desk.reads('is discarded')
  expect((await maren.must(readOrder, { id: member.id })).discarded).toBe(true)
  await desk.press('Undo')
  await desk.reads('Taken back.')
  expect(await maren.must(readOrder, { id: member.id })).toMatchObject({ discarded: false, state: 'draft', summary: 'Group member' })
})

test('two on one Sheet see each other; what the other changes is marked in place and nothing typed is lost', async () => {
  const { id } = await draft('Together')
  const other = await (await Person.at(server.url)).signIn('tobias.achterberg')
  await desk.go(`/desk/planning/order/${id}`)
  await desk.reads('Together')
  await other.go(`/desk/planning/order/${id}`)
  await other.reads('Maren Quill has this open too.')
  await desk.reads('Tobias Achterberg has this open too.')
  // Typed and not left yet, while the other changes two other fields.
  await desk.type('Getting in', 'Ring twice at the side')
  await other.type('Contact on site', 'Nuala Ingleby')
  await other.leave()
  await other.pick('Trade', 'Plumbing')
  const marked = async () => {
    const labels = await desk.driver.findElements(By.xpath("//*[self::label or self::dt][contains(., 'changed by Tobias Achterberg')]"))
    const texts = await Promise.all(labels.map((label) => label.getText()))
    return texts
      .filter(Boolean)
      .map((text) => text.split('changed')[0]!.trim())
      .sort()
  }
  await desk.until('both marked', async () => (await marked()).join() === 'Contact on site,Trade')
  expect(await (await desk.field('Getting in')).getAttribute('value')).toBe('Ring twice at the side')
  await desk.leave()
  await desk.until('both kept', async () => {
    const now = await maren.must(readOrder, { id })
    return now.access === 'Ring twice at the side' && now.contactName === 'Nuala Ingleby'
  })
  // Looked at, the mark goes.
  await desk.press('Nuala Ingleby')
  await desk.until(
    'the mark is gone',
    async () => (await desk.driver.findElements(By.xpath("//dt[contains(., 'Contact on site')][contains(., 'changed by')]"))).length === 0,
  )
  await other.go('/desk/intake')
  await desk.until('alone again', async () => desk.readsNot('has this open too'))
  await other.quit()
})

test('searching everything: a typing error is forgiven, narrowed by kind and state, opened by a press', async () => {
  await desk.go('/desk/planning')
  await desk.find(By.css('ol .row'))
  await desk.keys('/')
  // Nobody types before it is open.
  await desk.until('the palette is open', async () => (await (await desk.focused()).getTagName()) === 'input')
  await desk.keys('chillr presure')
  await desk.reads('Search everywhere for')
  await desk.reads('chiller pressure')
  await desk.go('/search?q=chillr presure')
  await desk.reads('Shown is what was found for')
  await desk.press('Orders')
  await desk.until('orders only', async () => (await address()).includes('type=order'))
  await desk.until('found', async () => (await desk.driver.findElements(By.xpath("//ol//a[contains(., 'Chiller 1 trips')]"))).length > 2)
  await desk.press('Order', "//ol[@aria-label='Found']")
  await desk.until('the Sheet', async () => /\/desk\/\w+\/order\/\d+/.test(await address()))
})
