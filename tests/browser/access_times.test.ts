import { createObject, makeCalendar } from 'tsdav'
import { readOrder } from '#contract/orders'
import { castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** When somebody is let in, and a space that is out of use meanwhile: offered and chosen, taken over a booking, given back. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let phone: Person
beforeAll(async () => {
  house = await House.open('access_seen', { mail: true, bookings: true })
  server = await house.start()
  cast = await castAt(server.url)
  ;[desk, phone] = [await (await Person.at(server.url)).signIn('maren.quill'), await Person.at(server.url, 'phone')]
})
afterAll(async () => {
  for (const person of [desk, phone]) await person?.quit()
  await house?.close()
})

test('times are offered from the Sheet, chosen on the phone by the link in the mail, and kept by the order; by key alone', async () => {
  const { id, token: private_ } = await orderAt(cast, 'ready')
  await desk.go(`/desk/planning/order/${id}`)
  await desk.press('Offer times')
  await desk.field('Time 1')
  await desk.press('Another time')
  await desk.type('A line for them', 'It takes an hour')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.keys(Key.chord(Key.CONTROL, Key.ENTER))
  await desk.reads('The times are offered to Aoife Ashdown.')
  await desk.reads('Not answered yet.')
  await desk.reads('Aoife Ashdown has not chosen a time yet.')
  const mail = await house.mail('aoife@reporter.example', ({ subject }) => subject.startsWith('When can we come?'))
  const token = /\/w\/([\w-]{43})/.exec(mail.text)![1]!
  await phone.go(`/w/${token}`)
  await phone.reads('It takes an hour')
  expect([await phone.overflow(), await phone.accessibilityFindings()]).toEqual([0, []])
  // The first of the times has the keyboard, and an arrow goes on to the next.
  await (await phone.find(By.css('input[type="radio"]'))).sendKeys(Key.SPACE, Key.ARROW_DOWN)
  await phone.type('Anything we should know', 'Ring twice')
  await phone.keys(Key.ENTER)
  await phone.reads('You chose')
  await desk.reads('“Ring twice”')
  const { window } = await cast.coordinator.must(readOrder, { id })
  expect(window).toMatchObject({ from: '2026-11-24T13:00:00.000Z', with: 'Aoife Ashdown' })
  await desk.until('nobody is waited for', () => desk.readsNot('has not chosen a time yet'))
  // On the private page of the request it stands as well, and can be changed there.
  await phone.go(`/t/${private_}`)
  await phone.press('Choose another time')
  await phone.press('None of them fits')
  await phone.type('When would it suit you?', 'Only on Fridays')
  await phone.press('Tell the desk')
  await phone.reads('The desk has your answer')
  await desk.reads('None of the times offered fits Aoife Ashdown: agree on another.')
  // Agreed on the telephone then; whoever is sent at another time, it is said why.
  await desk.press('Note a time agreed')
  await desk.type('From', '27 Nov 2026 09:00')
  await desk.leave()
  await desk.type('Until', '27 Nov 2026 12:00')
  await desk.leave()
  await desk.press('Note it')
  await desk.reads('The time is noted.')
  await desk.reads('Agreed for Fri 27 Nov, 09:00 to 12:00')
  await desk.type('Start', '27 Nov 2026 14:00')
  await desk.leave()
  await desk.reads('this begins at another time')
  await desk.press('Bram Oyelaran')
  await desk.press('Dispatch and tell them')
  await desk.reads('or say why somebody goes at another time')
  await desk.type('Why somebody goes at another time', 'They rang again')
  await desk.press('Dispatch and tell them')
  await desk.reads('They rang again')
})

test('a space is taken out of use over a booking: whom it meets is seen before, the Counter tells of it, and it is given back sooner', async () => {
  const { id } = await orderAt(cast, 'ready')
  const code = 'TID-207'
  await makeCalendar({ url: `${house.calendars}${code}/`, props: { 'd:displayname': code } })
  const lines = [
    'UID:talk@test',
    'DTSTAMP:20261101T000000Z',
    'DTSTART:20261123T140000Z',
    'DTEND:20261123T160000Z',
    'SUMMARY:Plankton seminar',
    'ORGANIZER;CN=Mirela Okonjo:mailto:mirela@skerry.example',
  ]
  await createObject({
    url: `${house.calendars}${code}/talk.ics`,
    headers: { 'Content-Type': 'text/calendar' },
    data: ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', 'BEGIN:VEVENT', ...lines, 'END:VEVENT', 'END:VCALENDAR', ''].join('\r\n'),
  })
  await desk.go(`/desk/planning/order/${id}`)
  await desk.press('Take a space out of use')
  await desk.pick('Space', code)
  await desk.type('From', '23 Nov 2026 08:00')
  await desk.leave()
  await desk.type('Until', '24 Nov 2026 17:00')
  await desk.leave()
  await desk.type('Why', 'Ceiling is opened')
  await desk.reads('1 booking falls into it')
  await desk.reads('Plankton seminar')
  await desk.reads('Mirela Okonjo')
  await desk.press('Tell occupants at the Counter')
  await desk.field('What it says')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Take it out of use over 1 booking')
  await desk.reads('It is out of use then.')
  await desk.reads('In the bookings system since')
  await desk.reads('Occupants are told at the Counter.')
  const [place] = await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code])
  await desk.go(`/registers/places/${place!.id}`)
  await desk.reads('Ceiling is opened')
  await desk.go(`/desk/planning/order/${id}`)
  await desk.press('Give it back now')
  await desk.reads('It is back in use.')
  await desk.reads('It was to end')
})
