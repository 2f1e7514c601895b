import { writeFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { House } from '../kit'
import type { Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

const SHEET = "//*[@id='sheet']"

/** One request travels the whole way, as five people see it, and a vendor takes a second one. */
let house: House
let server: Running
const people: Person[] = []
let photo: string

beforeAll(async () => {
  house = await House.open('browser', { mail: true })
  server = await house.start()
  photo = path.join(house.folder, 'light.jpg')
  writeFileSync(
    photo,
    await sharp({ create: { width: 320, height: 240, channels: 3, background: '#c98a1b' } })
      .jpeg()
      .toBuffer(),
  )
})
afterAll(async () => {
  for (const person of people) await person.quit()
  await house?.close()
})
async function person(size: 'desk' | 'phone' = 'desk'): Promise<Person> {
  const one = await Person.at(server.url, size)
  people.push(one)
  return one
}

test('reported on a phone, decided, approved, worked, checked, charged, and seen as done', async () => {
  const coordinator = await (await (await person()).signIn('maren.quill')).go('/')
  await coordinator.reads('Intake')

  // The reporter, on a phone, without an account.
  const reporter = await (await person('phone')).go('/c/ske')
  await reporter.type('Part of a name', 'TID-104')
  await reporter.press('Laboratory 2')
  await reporter.reads('What is it about?')
  await reporter.press('Next')
  await reporter.type('In one line', 'Light over the sink is out')
  await reporter.type('In more words', 'The left of three. Since this morning, I saw it myself.')
  await reporter.upload('A photo says', photo)
  await reporter.driver.wait(async () => (await reporter.driver.findElements(By.css('.kept img'))).length === 1, 10_000)
  await reporter.press('Next')
  await reporter.type('Your name', 'Clio Kestrel-Vane')
  await reporter.type('Mail address', 'clio@reporter.example')
  await reporter.press('Send')
  await reporter.reads('We have it')
  await reporter.press('See where it stands')
  await reporter.reads('We have received it.')
  const acknowledged = await house.mail('clio@reporter.example')
  expect(acknowledged.subject).toContain('Light over the sink is out')

  // It appears at the Desk without reloading; the coordinator decides.
  await coordinator.find(By.css('input[aria-label="Filter this queue"]')).sendKeys('Light over the sink')
  await coordinator.driver.wait(async () => (await coordinator.driver.findElements(By.css('ol .row'))).length === 1, 10_000)
  await coordinator.find(By.id('row-0')).click()
  await coordinator.reads('Counter,')
  await coordinator.pick('What it is about', 'Lights and sockets')
  await coordinator.say('A room, Today')
  await coordinator.reads('Urgent, because a room is affected and it has to be done today.')
  await coordinator.press('Accept as a new order')
  await coordinator.reads('Missing before it can be submitted')

  // Each missing line jumps to its field.
  await coordinator.press('Estimate the cost.')
  expect(await (await coordinator.focused()).getAttribute('id')).toBe('f-estimateMinor')
  await coordinator.type('Estimate', '180.00')
  await coordinator.leave()
  await coordinator.pick('Team', 'Electrical')
  await coordinator.pick('Who supervises it', 'Ines Ferrall')
  await coordinator.driver.wait(async () => coordinator.readsNot('Missing before it can be submitted'), 10_000)
  await coordinator.reads('180.00 EUR is within the limit of Ines Ferrall')
  await coordinator.press('Submit for approval')
  await coordinator.reads('waits for approval')
  const orderAddress = new URL(await coordinator.driver.getCurrentUrl()).pathname

  // The technician cannot see it yet; the approver reads it in full and approves.
  const technician = await (await (await person('phone')).signIn('bram.oyelaran')).go('/')
  await technician.reads('Rounds')
  expect(await technician.readsNot('Light over the sink')).toBe(true)
  const approver = await (await person()).signIn('ines.ferrall')
  await approver.go(orderAddress)
  await approver.reads('The left of three')
  await approver.press('Approve', SHEET)
  await (await approver.focused()).sendKeys('Go ahead', Key.chord(Key.CONTROL, Key.ENTER))
  await approver.driver.wait(async () => (await approver.driver.findElements(By.css('[data-move="approve"]'))).length === 0, 10_000)

  // Dispatch: the trade first, with shift and load; the technician is told by notice and mail.
  await coordinator.press('Dispatch', SHEET)
  await coordinator.reads('free, on shift')
  await coordinator.press('Bram Oyelaran')
  await coordinator.press('Dispatch and tell them')
  await coordinator.reads('is dispatched')
  expect((await house.mail('bram.oyelaran@skerry.example', (mail) => mail.subject.includes('Light over the sink'))).text).toContain('Badge at the north door')
  await reporter.driver.navigate().refresh()
  await reporter.reads('Scheduled for')

  // On the job, on a phone.
  await (await technician.reads('Light over the sink is out')).click()
  await technician.reads('The clock is not running.')
  await technician.press('Travel')
  await technician.reads('Travel, 0 min')
  await technician.press('Work')
  await technician.press('Part')
  await technician.type('Part by name or code', 'LED tube')
  await technician.press('LED tube 1200 mm')
  await technician.press('Use it')
  await technician.reads('1 pc LED tube 1200 mm')
  await technician.press('Note')
  await technician.type('Note', 'Starter was burnt.')
  await technician.press('Add the note')
  await technician.reads('Starter was burnt.')
  await technician.upload('Photo', photo)
  await technician.driver.wait(async () => (await technician.driver.findElements(By.css('.thumbs img'))).length === 2, 10_000)
  expect(await technician.readsNot('EUR')).toBe(true)
  await technician.press('Finish')
  await technician.choose('What was wrong', 'No power')
  await technician.choose('Why', 'Wear')
  await technician.choose('What was done', 'Replaced')
  await technician.press('Finish', '//form[@aria-label="Leave the job"]')
  await technician.reads('You have left this job.')

  // Wrap-up: cost beside the estimate, readiness, checked; the reporter is told.
  await coordinator.reads('Mark as checked')
  await coordinator.reads('LED tube 1200 mm')
  await coordinator.press('Mark as checked')
  await coordinator.reads('is checked; the reporter is told')
  expect((await house.mail('clio@reporter.example', (mail) => mail.text.includes('It is done'))).text).toContain('/t/')
  await reporter.driver.navigate().refresh()
  await reporter.reads('It is done.')

  // Charges: posted once, on the payer's statement, every line traceable; then reversed and posted again.
  const clerk = await (await person()).signIn('petra.lindqvist')
  await clerk.go(orderAddress)
  await clerk.press('Post charges')
  await clerk.reads('is posted and closed')
  await clerk.press('Reverse the charges')
  await clerk.type('Why the charges are wrong', 'Another payer was agreed.')
  await (await clerk.focused()).sendKeys(Key.chord(Key.CONTROL, Key.ENTER))
  await clerk.reads('is reversed; it can be posted again')
  await clerk.press('Post charges')
  await clerk.reads('is posted and closed')
  await clerk.press('5200 Seagrass Ecology', '//section[@aria-label="Charges"]')
  await clerk.reads('S-2026-11-5200')
  await clerk.reads('Bram Oyelaran, travel')
  await clerk.reads('Reversal:')

  // The timeline tells all of it, on both Sheets.
  await coordinator.go(orderAddress)
  for (const words of ['posted the charges', 'reversed the charges', 'checked it', 'finished the work', 'approved it', 'accepted it', 'reported it'])
    await coordinator.reads(words)
  await coordinator.press('R-', SHEET)
  for (const words of ['reported it', 'accepted it', 'posted the charges']) await coordinator.reads(words)
})

test('a vendor is sent, works through the pass on a phone and enters the bill', async () => {
  const coordinator = people[0]!
  await coordinator.go('/desk/dispatch')
  await coordinator.find(By.css('input[aria-label="Filter this queue"]')).sendKeys('Cold room')
  await coordinator
    .find(By.xpath("//ol//button[contains(@class, 'row')][.//*[contains(@class, 'summary')][starts-with(normalize-space(.), 'Cold room')]]"))
    .click()
  await coordinator.press('Dispatch', SHEET)
  await coordinator.press('Northbay Cooling')
  await coordinator.press('Dispatch and tell them')
  await coordinator.reads('is dispatched')
  const mail = await house.mail('jobs@northbay-cooling.example')
  const vendor = await (await person('phone')).go(/https?:\S+\/p\/\S+/.exec(mail.text)![0])
  await vendor.reads('Northbay Cooling for Skerry Sound Marine Station')
  await vendor.press('Work')
  await vendor.reads('Work, 0 min')
  await vendor.press('Finish')
  await vendor.choose('What was wrong', 'Too warm')
  await vendor.choose('Why', 'Failed part')
  await vendor.choose('What was done', 'Repaired')
  await vendor.press('Finish', '//form[@aria-label="Leave the job"]')
  await vendor.reads('You have left this job.')
  await vendor.press('Enter the bill')
  await vendor.type('Bill number', 'NC-77')
  await vendor.type('What', 'Call-out and refrigerant')
  await vendor.type('Price each', '150.00')
  await vendor.press('Send the bill')
  await vendor.reads('Your bill NC-77')
  await coordinator.reads('Northbay Cooling: Call-out and refrigerant')
})
