import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { By, Key } from 'selenium-webdriver'
import sharp from 'sharp'
import { build } from './build.mjs'
import { ensureSchema, startDatabase } from './kit/database.mjs'
import { openBrowser } from './kit/browser.mjs'
import { runProgram, startProgram } from './kit/processes.mjs'
import { root } from './kit/tools.mjs'

/** Makes the pictures of docs/screenshots from the demo world, at a fixed moment. Name some to make only those. */
const only = process.argv.slice(2)
const folder = mkdtempSync(path.join(tmpdir(), 'evrix-pictures-'))
const parts = []
try {
  await build()
  const database = await startDatabase(folder, { quick: true })
  parts.push(database)
  const env = {
    EVRIX_DATABASE_URL: await ensureSchema(database.url, 'evrix'),
    EVRIX_DATA_DIR: folder,
    EVRIX_NOW: '2026-11-23T10:30:00Z',
    PORT: '0',
    EVRIX_LOG: 'error',
  }
  await runProgram('demo', env)
  const mail = await startProgram('mail', env)
  const bookings = await startProgram('bookings', env)
  const server = await startProgram('main', { ...env, EVRIX_SMTP_URL: mail.addresses[0], EVRIX_CALDAV_URL: `${bookings.addresses[0]}/calendars/` })
  parts.push(mail, bookings, server)
  await takeAll(server.addresses[0], mail.addresses[1])
} finally {
  for (const part of parts.reverse()) await part.stop()
  rmSync(folder, { recursive: true, force: true })
}

async function takeAll(url, mailUrl) {
  const desk = await openBrowser(folder, 1280, 800)
  const phone = await openBrowser(folder, 390, 844)
  parts.push({ stop: () => desk.quit() }, { stop: () => phone.quit() })
  const keep = async (driver, name) => {
    await driver.sleep(700)
    if (!only.length || only.includes(name))
      writeFileSync(path.join(root, 'docs/screenshots', `${name}.png`), Buffer.from(await driver.takeScreenshot(), 'base64'))
  }
  /** Phones stand side by side in one picture. */
  const phones = []
  const hold = async () => {
    await phone.sleep(700)
    phones.push(Buffer.from(await phone.takeScreenshot(), 'base64'))
  }
  const keepPhones = async (name) => {
    const shots = phones.splice(0)
    if (only.length && !only.includes(name)) return
    const { width, height } = await sharp(shots[0]).metadata()
    const gap = 16
    await sharp({ create: { width: shots.length * (width + gap) - gap, height, channels: 3, background: '#ffffff' } })
      .composite(shots.map((input, index) => ({ input, left: index * (width + gap), top: 0 })))
      .png()
      .toFile(path.join(root, 'docs/screenshots', `${name}.png`))
  }
  const go = async (driver, address) => {
    await driver.get(url + address)
    await driver.sleep(900)
  }
  const signIn = async (driver, name) => {
    await driver.manage().deleteAllCookies()
    await go(driver, '/sign-in')
    await driver.findElement(By.id('email')).sendKeys(`${name}@skerry.example`)
    await driver.findElement(By.id('password')).sendKeys('slack-tide-42', Key.ENTER)
    await driver.sleep(1500)
  }
  const openRow = async (words) => {
    await desk.findElement(By.xpath(`//ol//button[contains(., '${words}')]`)).click()
    await desk.sleep(900)
  }

  await signIn(desk, 'maren.quill')
  await go(desk, '/desk/intake')
  await openRow('Freezer alarm')
  await keep(desk, 'intake')
  await desk.findElement(By.css('body')).sendKeys('n')
  await desk.sleep(500)
  await desk.switchTo().activeElement().sendKeys('clio corrigan')
  await desk.sleep(900)
  await desk.switchTo().activeElement().sendKeys(Key.ENTER)
  await desk.sleep(900)
  await desk.switchTo().activeElement().sendKeys('Fume')
  await keep(desk, 'call')
  await desk.switchTo().activeElement().sendKeys(Key.ESCAPE)
  await go(desk, '/desk/planning')
  await openRow('Lift door')
  await keep(desk, 'planning')
  await go(desk, '/desk/dispatch')
  await openRow('Fire door does not close')
  await desk.sleep(600)
  await keep(desk, 'dispatch')
  // What is planned of it: steps, parts, and what it will cost.
  await desk.executeScript("document.getElementById('s-steps').scrollIntoView()")
  await keep(desk, 'plan')
  // People against time, and what nobody is planned for.
  await go(desk, '/board')
  await keep(desk, 'board')
  // A plan computed for the day, held against what stands.
  await desk.findElement(By.xpath("//button[normalize-space(.)='Compute a plan']")).click()
  await desk.sleep(600)
  await desk.findElement(By.css('form[aria-label="What to plan"] button[type="submit"]')).click()
  await desk.sleep(11_000)
  await keep(desk, 'dayplan')
  await go(desk, '/registers/assets?own1=any&columns=tag,name,own1,own2,open')
  await desk.findElement(By.xpath("//tbody//td[normalize-space(.)='CH-1']")).click()
  await desk.sleep(1200)
  await keep(desk, 'registers')
  await go(desk, '/floorplans')
  await desk.findElement(By.id('plan')).sendKeys('TID-0')
  await desk.sleep(600)
  await desk.switchTo().activeElement().sendKeys(Key.ENTER)
  await desk.sleep(1200)
  await desk.findElement(By.xpath("//aside//li//button[contains(., 'TID-007')]")).click()
  await keep(desk, 'floorplan')
  // What has run low, with the sum behind it; what is lent to jobs; many orders from one template.
  await go(desk, '/stock')
  await desk.findElement(By.xpath("//tr[contains(., 'Door closer')]//button[normalize-space(.)='Why']")).click()
  await keep(desk, 'stock')
  await go(desk, '/templates')
  await desk.findElement(By.xpath("//article[@aria-label='Lights looked over']//button[normalize-space(.)='Make orders']")).click()
  await desk.sleep(800)
  const branch = await desk.findElement(By.id('make-place'))
  await branch.sendKeys('second floor gannet')
  await desk.sleep(1200)
  await branch.sendKeys(Key.ENTER)
  await desk.sleep(1800)
  await keep(desk, 'templates')
  await go(desk, '/insight')
  await keep(desk, 'insight')
  await go(desk, '/lists')
  await desk.sleep(800)
  for (const key of [Key.ARROW_DOWN, Key.ARROW_DOWN, 'm', Key.ARROW_DOWN, 'm', ' ']) await desk.actions().sendKeys(key).perform()
  await keep(desk, 'lists')
  await desk.executeScript("localStorage.setItem('evrix-theme', 'dark')")
  await go(desk, '/desk/wrapup')
  await openRow('Tap drips')
  await keep(desk, 'wrapup')
  await desk.executeScript("localStorage.setItem('evrix-theme', 'light')")
  await signIn(desk, 'ines.ferrall')
  await go(desk, '/desk/planning')
  await openRow('Fume cupboard')
  await keep(desk, 'approval')
  await signIn(desk, 'petra.lindqvist')
  await go(desk, '/ledger/9/2026-10')
  await desk.executeScript("document.querySelector('details').open = true")
  await keep(desk, 'statement')
  await signIn(desk, 'wendeline.stroud')
  await go(desk, '/setup/rules')
  await desk.sleep(800)
  await keep(desk, 'rules')

  await go(phone, '/c/SKE')
  await phone.findElement(By.id('place')).sendKeys('studio gan')
  await hold()
  await phone.findElement(By.css('#found button')).click()
  await phone.sleep(400)
  await phone.findElement(By.css('.bar .n-button--primary-type')).click()
  await phone.sleep(400)
  await phone.findElement(By.id('summary')).sendKeys('Shower runs cold after a minute')
  await phone.findElement(By.id('description')).sendKeys('The shower in my studio, since Saturday. The basin stays warm. I saw it myself.')
  const photo = path.join(folder, 'photo.jpg')
  writeFileSync(photo, await madeUpPhoto())
  await phone.findElement(By.id('files')).sendKeys(photo)
  await phone.sleep(2000)
  await phone.findElement(By.xpath("//button[normalize-space(.)='Cut or draw']")).click()
  await phone.sleep(800)
  const canvas = await phone.findElement(By.css('canvas'))
  const drag = (from, to) =>
    phone
      .actions({ async: true })
      .move({ origin: canvas, ...from })
      .press()
      .move({ origin: canvas, ...to })
      .release()
      .perform()
  await drag({ x: -120, y: 70 }, { x: -40, y: 10 })
  await phone.findElement(By.xpath("//button[normalize-space(.)='Ring']")).click()
  await drag({ x: -40, y: -50 }, { x: 40, y: 40 })
  await phone.findElement(By.xpath("//button[normalize-space(.)='Use this photo']")).click()
  await phone.sleep(2000)
  await phone.findElement(By.css('.bar .n-button--primary-type')).click()
  await phone.sleep(400)
  await phone.findElement(By.css('.bar .n-button--primary-type')).click()
  await phone.sleep(1200)
  await phone.findElement(By.css('a.mine')).click()
  await hold()
  await go(phone, '/c/SKE')
  await phone.findElement(By.xpath("//button[normalize-space(.)='From the plan']")).click()
  await phone.sleep(1500)
  await hold()
  await keepPhones('counter')
  await signIn(phone, 'fintan.rosewarne')
  await hold()
  const jobs = await phone.findElements(By.css('.job'))
  if (jobs.length) await jobs[0].click()
  await hold()
  // The same in a cellar.
  await phone.sleep(2500)
  await phone.setNetworkConditions({ offline: true, latency: 0, download_throughput: 0, upload_throughput: 0 })
  await phone.findElement(By.xpath("//button[normalize-space(.)='Note']")).click()
  await phone.findElement(By.css('form textarea')).sendKeys('Valve seized; freed it with the long key.')
  await phone.executeScript('arguments[0].click()', await phone.findElement(By.xpath("//button[normalize-space(.)='Add the note']")))
  await phone.sleep(2500)
  await phone.executeScript('scrollTo(0, 0)')
  await hold()
  await phone.setNetworkConditions({ offline: false, latency: 0, download_throughput: -1, upload_throughput: -1 })
  await phone.sleep(4000)
  await phone.findElement(By.xpath("//button[normalize-space(.)='Finding']")).click()
  await phone.sleep(1200)
  await phone.findElement(By.id('finding')).sendKeys('Grating over the sump is loose at the north edge')
  await phone.findElement(By.xpath("//button[normalize-space(.)='Pin on the plan']")).click()
  await phone.sleep(1500)
  await phone.findElement(By.xpath("//button[normalize-space(.)='Put it in the middle']")).click()
  await hold()
  await phone.findElement(By.xpath("//button[normalize-space(.)='Leave it']")).click()
  const gannet = (await (await fetch(`${url}/api/readiness`, { headers: { Cookie: await cookiesOf(phone) } })).json()).rows.find(({ code }) => code === 'GAN')
  await go(phone, `/readiness/${gannet.id}`)
  await phone.executeScript("document.querySelector('[aria-label^=\"GAN-102\"]').scrollIntoView({ block: 'center' })")
  await hold()
  await go(phone, '/rounds/spot?site=SKE&place=GAN-204')
  await phone.sleep(1500)
  await hold()
  await go(phone, await vendorLink(desk, signIn, mailUrl))
  await hold()
  await keepPhones('field')
}

/** What a browser is signed in by. */
async function cookiesOf(driver) {
  return (await driver.manage().getCookies()).map(({ name, value }) => `${name}=${value}`).join('; ')
}

/** A photo of nothing: a tap on a wall, drawn. */
function madeUpPhoto() {
  const drawing =
    '<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900"><rect width="1200" height="900" fill="#c9d3d2"/><g stroke="#b4c0bf" stroke-width="6">' +
    [150, 300, 450, 600, 750].map((y) => `<path d="M0 ${y}H1200"/>`).join('') +
    [200, 400, 600, 800, 1000].map((x) => `<path d="M${x} 0V900"/>`).join('') +
    '</g><path d="M600 250v130h-150v60" fill="none" stroke="#6d7b80" stroke-width="52"/><circle cx="600" cy="240" r="52" fill="#55636a"/><path d="M200 700h800l-70 150H270z" fill="#eef2f1" stroke="#9aa7a8" stroke-width="8"/></svg>'
  return sharp(Buffer.from(drawing)).jpeg().toBuffer()
}

/** Sends an approved order to a vendor and reads the pass from the mail they receive; the address without the host. */
async function vendorLink(desk, signIn, mailUrl) {
  await signIn(desk, 'maren.quill')
  await desk.executeAsyncScript(`(async (done) => {
    const ask = (path, body) => fetch(path, body && { method: 'POST', headers: { 'Content-Type': 'application/json', 'Idempotency-Key': 'picture-of-the-pass' }, body: JSON.stringify(body) }).then((reply) => reply.json())
    const { rows } = await ask('/api/orders?state=ready&q=cold')
    const { version } = await ask('/api/orders/' + rows[0].id)
    done(await ask('/api/orders/' + rows[0].id + '/dispatch', { version, vendorId: 2, start: '2026-11-24T09:00:00Z', end: '2026-11-24T11:00:00Z' }))
  })(arguments[0])`)
  for (let tries = 0; tries < 60; tries++) {
    const mails = await (await fetch(`${mailUrl}/mails.json?to=jobs@northbay-cooling.example`)).json()
    if (mails.length) return /\/p\/[A-Za-z0-9_-]{43}/.exec(mails[0].text)[0]
    await desk.sleep(200)
  }
  throw new Error('The vendor received no pass.')
}
