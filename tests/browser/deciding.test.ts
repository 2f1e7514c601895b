import { editOrder, submitOrder } from '#contract/orders'
import { readSuggestions } from '#contract/requests'
import { accepted, castAt, complete, House, report, version } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Deciding in a real browser: with suggestions at the Desk, and from a mail on a phone. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('deciding', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

test('a deputy approves from the mail on a phone, after confirming; the desk sees for whom', async () => {
  const accountOf = async (email: string) => (await house.rows<{ id: number }>('SELECT id FROM account WHERE email = ?', [email]))[0]!.id
  const [ines, osric] = [await accountOf('ines.ferrall@skerry.example'), await accountOf('osric.vane@skerry.example')]
  await house.rows('DELETE FROM deputy')
  await house.rows("INSERT INTO deputy (for_account_id, deputy_account_id, from_at, until_at) VALUES (?, ?, '2026-11-01', '2026-12-31')", [osric, ines])
  const id = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete, estimateMinor: 900_000 })
  await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
  const mail = await house.mail('ines.ferrall@skerry.example', (one) => one.subject.startsWith('To approve'))
  const phone = await (await Person.at(server.url, 'phone')).go(/http\S+\/a\/[\w-]{43}/.exec(mail.text)![0])
  await phone.reads('you decide for Osric Vane, whose limit covers it')
  await phone.reads('9,000.00')
  expect(await phone.overflow()).toBeLessThanOrEqual(0)
  expect(await phone.accessibilityFindings()).toEqual([])
  const stateOf = async () => (await house.rows<{ state: string }>('SELECT state FROM work_order WHERE id = ?', [id]))[0]!.state
  await phone.press('Approve')
  await phone.reads('Approve 9,000.00 EUR for')
  expect(await stateOf()).toBe('to_approve')
  await phone.press('Yes, approve it')
  await phone.reads('You have approved it.')
  expect(await stateOf()).toBe('ready')
  await phone.quit()
  const desk = await (await Person.at(server.url)).signIn('maren.quill')
  await desk.go(`/desk/dispatch/order/${id}`)
  await desk.reads('approved it')
  const [row] = await house.rows<{ decided_by: number; acting_for_id: number }>('SELECT decided_by, acting_for_id FROM approval WHERE order_id = ?', [id])
  expect(row).toEqual({ decided_by: ines, acting_for_id: osric })
  await desk.quit()
})

test('a suggestion is taken with one key, and what was solved before stands beside it', async () => {
  const place = (await house.rows<{ id: number }>("SELECT id FROM place WHERE code = 'GAN-202'"))[0]!.id
  const { id } = await report(cast, { placeId: place, summary: 'The basin tap drips' })
  for (let tries = 0; tries < 100 && !(await cast.coordinator.must(readSuggestions, { id })).ready; tries++)
    await new Promise((resolve) => setTimeout(resolve, 100))
  const desk = await (await Person.at(server.url)).signIn('maren.quill')
  await desk.go(`/desk/intake/request/${id}`)
  await desk.reads('Solved before')
  const categoryOf = async () =>
    (await house.rows<{ name: string | null }>('SELECT c.name FROM request r LEFT JOIN category c ON c.id = r.category_id WHERE r.id = ?', [id]))[0]!.name
  expect(await categoryOf()).toBeNull()
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('g')
  await desk.until('it is taken', async () => (await categoryOf()) === 'Water, drains and toilets')
  await desk.quit()
})

test('a rule for reasons is set in sentences, tried on an order, in force at once and shown before the press; who is away is seen', async () => {
  const id = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete })
  const [row] = await house.rows<{ number: string }>('SELECT number FROM work_order WHERE id = ?', [id])
  const admin = await (await Person.at(server.url)).signIn('wendeline.stroud')
  await admin.go('/setup/rules')
  await admin.press('Add a rule for reasons')
  await admin.choose('For the move', 'Submit for approval')
  await admin.type('Reasons to choose from', 'Cannot wait\nAsked for by the payer')
  await admin.leave()
  await admin.reads('“Submit for approval” of an order: a reason from the list is needed: Cannot wait; Asked for by the payer.')
  await admin.type('Try it on an order', row!.number)
  await admin.press('Try it out')
  await admin.reads('asks for one of: Cannot wait; Asked for by the payer')
  const inForce = async () => (await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM rule_section WHERE content LIKE '%Asked for by the payer%'"))[0]!.n
  expect(await inForce()).toBe(0)

  const desk = await (await Person.at(server.url)).signIn('maren.quill')
  await admin.press('Keep the rule')
  await admin.until('kept', async () => (await inForce()) === 1)
  await desk.go(`/desk/planning/order/${id}`)
  await desk.press('Submit for approval')
  await desk.choose('Why (needed)', 'Cannot wait')
  await desk.press('Submit for approval', "//form[contains(@class, 'ask')]")
  await desk.reads('waits for approval')
  const [event] = await house.rows<{ reason: string }>("SELECT reason FROM event WHERE kind = 'order.submit' AND order_id = ?", [id])
  expect(event!.reason).toBe('Cannot wait')
  await admin.quit()

  // Osric is away: whoever asks him sees it, and who decides meanwhile.
  await house.rows("UPDATE deputy SET from_at = '2026-11-01', until_at = '2026-12-31'")
  const dear = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id: dear, version: await version(cast, dear), ...complete, estimateMinor: 900_000 })
  await desk.go(`/desk/planning/order/${dear}`)
  await desk.reads('is away until')
  await desk.quit()
})

test('an approver finds what is asked above the fold, under a head of at most 150 pixels', async () => {
  const id = await accepted(cast, (await report(cast)).id)
  await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete })
  await cast.coordinator.must(submitOrder, { id, version: await version(cast, id), reason: 'Cannot wait' })
  const ines = await (await Person.at(server.url)).signIn('ines.ferrall')
  await ines.go(`/desk/planning/order/${id}`)
  await ines.reads('asked for by')
  const heights = () => ines.driver.executeScript<number[]>("return [...document.querySelectorAll('.head')].map((one) => one.getBoundingClientRect().height)")
  await ines.until('the head is there', async () => (await heights()).length > 0)
  expect(Math.max(...(await heights()))).toBeLessThanOrEqual(150)
  for (const words of ['asked for by', 'is within the limit of', 'Left of it']) {
    const { bottom } = await ines.driver.executeScript<{ bottom: number }>(
      'const { bottom } = arguments[0].getBoundingClientRect(); return { bottom }',
      await ines.reads(words),
    )
    expect(bottom).toBeLessThan(800)
  }
  await ines.quit()
})

test('how a site writes is set in Setup, in force at once, and kept', async () => {
  const admin = await (await Person.at(server.url)).signIn('wendeline.stroud')
  await admin.go('/setup/rules')
  await admin.choose('Times of day', '2:30 pm')
  await admin.reads('02:30 pm')
  await admin.choose('A week begins on', 'Sunday')
  const kept = async () =>
    (await house.rows<{ content: string }>("SELECT CAST(content AS CHAR) AS content FROM rule_section WHERE section = 'writing'"))[0]?.content ?? '{}'
  await admin.until('it is kept', async () => JSON.parse(await kept()).weekFrom === 7)
  expect(JSON.parse(await kept())).toMatchObject({ clock: 12, weekFrom: 7 })
  await admin.load('/setup/rules')
  await admin.reads('02:30 pm')
  await admin.choose('Times of day', '14:30')
  await admin.until('it is as before', async () => JSON.parse(await kept()).clock === 24)
  await admin.quit()
})

test('a station says what others changed since one last looked, and only that', async () => {
  const id = await accepted(cast, (await report(cast)).id)
  const [row] = await house.rows<{ number: string }>('SELECT number FROM work_order WHERE id = ?', [id])
  const desk = await (await Person.at(server.url)).signIn('tobias.achterberg')
  const changed = "//section[@aria-label='Changed since you last looked']"
  await desk.go('/desk/planning')
  await desk.until(
    'the acceptance is told',
    async () => (await desk.driver.findElements(By.xpath(`${changed}//a[contains(., '${row!.number}')]`))).length === 1,
  )
  // Leaving the station is having looked.
  await desk.press(row!.number, changed)
  await desk.reads('Timeline')
  await desk.keys(Key.ESCAPE)
  await desk.driver.executeScript(
    "localStorage.setItem(Object.keys(localStorage).find((one) => one.startsWith('evrix-looks')), JSON.stringify({ planning: '2027-01-01T00:00:00Z' }))",
  )
  await desk.load('/desk/planning')
  await desk.reads('Nobody else changed anything of what stands here.')
  await desk.quit()
})
