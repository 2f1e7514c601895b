import { accepted, approved, castAt, House, report } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** A state of the site's own, from Setup to the move that leads there, the head of the order and a list. */
let house: House
let server: Running
let cast: Cast
let admin: Person
let desk: Person

beforeAll(async () => {
  house = await House.open('own_states_seen')
  server = await house.start()
  cast = await castAt(server.url)
  ;[admin, desk] = [await (await Person.at(server.url)).signIn('wendeline.stroud'), await (await Person.at(server.url)).signIn('maren.quill')]
})
afterAll(async () => {
  await admin?.quit()
  await desk?.quit()
  await house?.close()
})

test('added in Setup, chosen with the move, changed in the head, found in a list, and taken back', async () => {
  const id = await accepted(cast, (await report(cast, { summary: 'Cupboard will not lock' })).id)
  await approved(cast, id)
  await admin.go('/setup/states')
  await admin.reads('Waiting for the tide')
  await admin.type('Name', 'Waiting for the locksmith')
  await admin.choose('Mark', 'Triangle')
  await admin.press('Add it')
  await admin.reads('Waiting for the locksmith was added.')
  await admin.type('Name', 'waiting for the LOCKSMITH')
  await admin.press('Add it')
  await admin.reads('is there already under On hold')
  expect(await admin.accessibilityFindings()).toEqual([])

  await desk.go(`/desk/dispatch/order/${id}`)
  await desk.move('Put on hold')
  await desk.choose('More exactly', 'Waiting for the locksmith')
  await (await desk.find(By.id('move-reason'))).sendKeys('Comes on Friday')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Put on hold', "//form[contains(@class,'ask')]")
  await desk.reads('is on hold.')
  const head = "//header//*[contains(@class,'n-base-selection')]"
  await desk.find(By.xpath(`${head}[contains(.,'Waiting for the locksmith')]`))
  // By key: opened, typed into, chosen.
  await (await desk.find(By.id('own-state'))).sendKeys('keys')
  await desk.find(By.xpath("//*[contains(@class,'n-base-select-option')][contains(.,'Waiting for keys')]"))
  await desk.driver.sleep(300)
  await desk.keys(Key.ENTER)
  await desk.reads(': Waiting for keys.')
  await desk.press('Undo')
  await desk.reads('Taken back.')
  await desk.find(By.xpath(`${head}[contains(.,'Waiting for the locksmith')]`))

  await desk.go('/lists/orders?state=on_hold&columns=number,summary,ownstate&group=ownstate')
  await desk.reads('Waiting for the locksmith')
  await desk.reads('Waiting for the tide')
})
