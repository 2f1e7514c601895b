import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { By, Key, until } from 'selenium-webdriver'
import type { WebElement, WebElementPromise } from 'selenium-webdriver'
import { openBrowser, sizeWindow } from '../../scripts/kit/browser.mjs'
import type { Browser } from '../../scripts/kit/browser.mjs'
import { Client } from './client'
import { putBack, takeBrowser } from './shelf'

export type Signal = 'cut' | 'slow' | 'whole'
const SIGNALS = {
  cut: { offline: true, latency: 0, download_throughput: 0, upload_throughput: 0 },
  slow: { offline: false, latency: 250, download_throughput: 40_000, upload_throughput: 20_000 },
  whole: { offline: false, latency: 0, download_throughput: -1, upload_throughput: -1 },
}
const PATIENCE = 25_000
/** How often is looked whether it is there: a fifth of a second, as the driver has it, adds up to minutes. */
const LOOK_EVERY_MS = 40

/** A person at a real Chromium: finds things as a person does, by their labels and words. */
export class Person {
  private constructor(
    readonly driver: Browser,
    readonly url: string,
    /** Started as nobody else needs it, it ends with whom it was for. */
    private readonly special: boolean,
  ) {}

  static async at(url: string, size: 'desk' | 'phone' = 'desk', more: string[] = []): Promise<Person> {
    const [width, height] = size === 'desk' ? [1280, 800] : [390, 844]
    const folder = process.env.EVRIX_TEST_FOLDER ?? tmpdir()
    const driver = await (more.length ? openBrowser(folder, width, height, more) : takeBrowser(folder, width, height))
    const wait = driver.wait.bind(driver) as (...all: unknown[]) => never
    driver.wait = (condition: unknown, timeout?: number, message?: string) => wait(condition, timeout, message, LOOK_EVERY_MS)
    return new Person(driver, url, more.length > 0)
  }

  /**
   * Goes there as a link in the page leads, where both are the Desk's: a quarter of what loading it anew takes, and what
   * people do. What was said of the last act is over then. Elsewhere, and where they are there already, as `load`.
   */
  async go(address: string): Promise<this> {
    const within = await this.driver.executeAsyncScript<boolean>(TURN, address, this.url, DESK.source)
    return within ? this : this.load(address)
  }

  /** Comes there as somebody who opens the page anew. */
  async load(address: string): Promise<this> {
    await this.driver.get(address.startsWith('http') ? address : this.url + address)
    return this
  }

  /** By the form, as people do. */
  async signInByForm(name: string): Promise<this> {
    await this.go('/sign-in')
    await this.type('Mail address', `${name}@skerry.example`)
    await this.type('Password', 'slack-tide-42')
    await this.press('Sign in')
    await this.driver.wait(async () => !(await this.driver.getCurrentUrl()).includes('sign-in'), PATIENCE)
    return this
  }

  /** Without the form, which takes as long as many a test: the session alone. Where they go first is up to the test. */
  async signIn(name: string): Promise<this> {
    const { session } = await new Client(this.url).signIn(name)
    const [cookie, value] = session.split('=') as [string, string]
    await this.driver.sendDevToolsCommand('Network.setCookie', { name: cookie, value, url: this.url, httpOnly: true, sameSite: 'Lax' })
    return this
  }

  /** The field with this label. */
  async field(label: string): Promise<WebElement> {
    const named = `//label[normalize-space(.)=${quoted(label)} or starts-with(normalize-space(.), ${quoted(label)})]`
    return this.waitFor(`${named} | //input[@aria-label=${quoted(label)}] | //textarea[@aria-label=${quoted(label)}]`, async (found) => {
      if ((await found.getTagName()) !== 'label') return found
      const id = await found.getAttribute('for')
      return id ? this.driver.findElement(By.id(id)) : found.findElement(By.css('input, textarea, select'))
    })
  }

  async type(label: string, text: string): Promise<void> {
    await this.turn(label)
    const field = await this.field(label)
    // As by Ctrl A, which is not taken now and then.
    await this.driver.executeScript(SELECT, field)
    await this.enter(text)
  }

  /** Where the keyboard is, in one piece as from a paste: letter by letter takes half a second. Keys stay keys. */
  private async enter(text: string): Promise<void> {
    for (const part of text.split(/([\uE000-\uF8FF])/))
      if (/[\uE000-\uF8FF]/.test(part)) await this.driver.actions().sendKeys(part).perform()
      else if (part) await this.driver.sendDevToolsCommand('Input.insertText', { text: part })
    if (!text) await this.driver.actions().sendKeys(Key.BACK_SPACE).perform()
  }

  /** Turns the fact with this label into its field, where it is one. */
  private async turn(label: string): Promise<void> {
    const named = `starts-with(normalize-space(.), ${quoted(label)})`
    const found = await this.waitFor(`//label[${named}] | //dt[${named}] | //input[@aria-label=${quoted(label)}]`)
    if ((await found.getTagName()) !== 'dt') return
    const fact = await found.findElement(By.xpath('..//*[contains(@class, "fact-value")]'))
    await this.see(fact)
    await fact.click()
  }

  /** Leaves the field that has the keyboard, so that it saves. */
  async leave(): Promise<void> {
    await this.driver.actions().sendKeys(Key.TAB).perform()
  }

  /** Chooses in a field that offers while typing. */
  async pick(label: string, text: string): Promise<void> {
    await this.turn(label)
    const input = await this.waitFor(`//input[@aria-label=${quoted(label)} or @id=//label[starts-with(normalize-space(.), ${quoted(label)})]/@for]`)
    await this.see(input)
    const box = await input.findElement(By.xpath('ancestor::*[contains(@class,"n-base-selection")][last()]'))
    await box.click()
    await this.enter(text)
    const option = await this.waitFor(`//*[contains(@class,"n-base-select-option")][contains(., ${quoted(text)})]`)
    await option.click()
    await this.driver.sleep(250)
  }

  /** Presses the cell of a grid that says these two things. */
  async say(both: string): Promise<void> {
    await this.pressAt(`//table//button[starts-with(@aria-label, ${quoted(both)})]`, both)
  }

  /** Chooses one of what is offered: in sight, or in a list that opens. */
  async choose(label: string, option: string): Promise<void> {
    const group = `//*[@role="radiogroup"][@aria-label=${quoted(label)}]`
    const list = `//input[@aria-label=${quoted(label)}][ancestor::*[contains(@class,"n-base-selection")]]`
    const found = await this.waitFor(`${group} | ${list}`)
    if ((await found.getTagName()) === 'input') return this.pick(label, option)
    await this.press(option, group)
  }

  /** Presses the button or link with these words. */
  async press(words: string, within = ''): Promise<void> {
    const named = `${within}//*[self::button or self::a or self::label or self::summary or @role="checkbox" or @role="switch"][starts-with(normalize-space(translate(., '\u00a0', ' ')), ${quoted(words)})][not(@aria-disabled="true")][not(@disabled) or @disabled="false"]`
    await this.pressAt(named, words)
  }

  /** Presses what is there, again where it moved away as it was pressed. */
  private async pressAt(xpath: string, words: string): Promise<void> {
    let target = await this.waitFor(xpath)
    let tries = 0
    await this.driver.wait(
      () =>
        this.hit(target).then(
          // As a person does; said, for people should not have to.
          (hit) => hit || (process.stderr.write(`“${words}” moved away as it was pressed.\n`), ++tries === 3),
          async (why: Error) => {
            // What is read anew meanwhile draws its buttons anew.
            if (why.name === 'StaleElementReferenceError') target = await this.waitFor(xpath)
            return false
          },
        ),
      PATIENCE,
      `“${words}” cannot be pressed`,
    )
  }

  /** Presses it where it is; answers whether it was met. */
  private async hit(target: WebElement): Promise<boolean> {
    await this.driver.executeScript(AIM, target)
    await target.click()
    // A page that was left by it has met it.
    return this.driver.executeScript<boolean>('return window.pressed !== false').catch(() => true)
  }

  /** Presses a move of the open Sheet; the lesser ones wait under “More”. */
  async move(words: string): Promise<void> {
    const bar = '//*[@role="toolbar"][@aria-label="Moves"]'
    await this.waitFor(bar)
    const inSight = await this.driver.findElements(By.xpath(`${bar}//button[starts-with(normalize-space(translate(., '\u00a0', ' ')), ${quoted(words)})]`))
    if (!inSight.length) await this.press('More', bar)
    await this.press(words, '//*[@class="moves"]')
  }

  async reads(words: string): Promise<WebElement> {
    return this.waitUntilSeen(`words like “${words}”`, WITH_WORDS, words)
  }

  async readsNot(words: string): Promise<boolean> {
    return !(await this.driver.findElement(By.css('body')).getText()).includes(words)
  }

  async upload(label: string, file: string): Promise<void> {
    const input = await this.driver.wait(until.elementLocated(By.xpath(`//input[@type="file"][starts-with(@aria-label, ${quoted(label)})]`)), PATIENCE)
    await input.sendKeys(file)
  }

  /** One after another; of a chord, what is held down with the last is let go again, which the driver leaves down. */
  async keys(...keys: string[]): Promise<void> {
    for (const key of keys) {
      const held = key.endsWith(Key.NULL) ? [...key.slice(0, -2)] : []
      const presses = this.driver.actions()
      for (const one of held) presses.keyDown(one)
      presses.sendKeys(held.length ? key.at(-2)! : key)
      for (const one of held) presses.keyUp(one)
      await presses.perform()
    }
  }

  /** The window of this browser from now on, exactly. */
  async size(width: number, height: number): Promise<void> {
    await sizeWindow(this.driver, width, height)
  }

  /** Slows the processor of the page so many times. */
  async slow(times: number): Promise<void> {
    await this.driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: times })
  }

  /** Waits until it is so; says what it waited for when it never is. */
  async until(what: string, isSo: () => Promise<boolean>): Promise<void> {
    // What was redrawn while it was looked at is looked at again.
    const looked = () =>
      isSo().catch((why: Error) => {
        if (why.name !== 'StaleElementReferenceError') throw why
        return false
      })
    await this.driver.wait(looked, PATIENCE, what)
  }

  /** The line of this browser from now on: none, a poor one, or as it is. */
  async signal(how: Signal): Promise<void> {
    await this.driver.setNetworkConditions(SIGNALS[how])
  }

  /** The first of these, as soon as it is there. */
  find(selector: By): WebElementPromise {
    return this.driver.wait(until.elementLocated(selector), PATIENCE)
  }

  /** What has the keyboard. */
  focused(): Promise<WebElement> {
    return this.driver.switchTo().activeElement()
  }

  /** Serious findings of axe-core on what is shown. */
  async accessibilityFindings(): Promise<string[]> {
    // Half a megabyte, which stays in the page while its address changes within it.
    if (await this.driver.executeScript('return !window.axe'))
      await this.driver.executeScript(readFileSync(path.join(process.env.EVRIX_ROOT ?? process.cwd(), 'node_modules/axe-core/axe.min.js'), 'utf8'))
    return this.driver.executeAsyncScript(`const done = arguments[arguments.length - 1]
      axe.run(document, { resultTypes: ['violations'], preload: false }).then((result) => done(result.violations
        .filter((one) => one.impact === 'serious' || one.impact === 'critical')
        .map((one) => one.id + ': ' + one.nodes.map((node) => node.target.join(' ')).slice(0, 4).join(', '))))`)
  }

  /** How far the page reaches beyond the right edge, in pixels. */
  overflow(): Promise<number> {
    return this.driver.executeScript('return document.documentElement.scrollWidth - document.documentElement.clientWidth')
  }

  async picture(file: string): Promise<void> {
    writeFileSync(file, Buffer.from(await this.driver.takeScreenshot(), 'base64'))
  }

  async quit(): Promise<void> {
    await (this.special ? this.driver.quit() : putBack(this.driver, [this.url]))
  }

  /** What stands on the page: where it is, what it says last, and its words from the top. */
  private async standing(): Promise<string> {
    const [said, all] = await this.driver.executeScript<[string, string]>(
      `return [[...document.querySelectorAll('[role="status"], [role="alert"]')].map((one) => one.innerText).join(' / '), document.body.innerText]`,
    )
    return `at ${await this.driver.getCurrentUrl()}\nit says: ${said}\n${all.slice(0, 3000)}`
  }

  private async see(element: WebElement): Promise<void> {
    await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element)
  }

  private waitFor(xpath: string, then?: (found: WebElement) => Promise<WebElement> | WebElement): Promise<WebElement> {
    return this.waitUntilSeen(`nothing like ${xpath}`, AT_XPATH, xpath, then)
  }

  /** The first in sight of what the script finds: looked for in the page itself, for each question to the driver costs more than the answer. */
  private async waitUntilSeen(
    what: string,
    script: string,
    argument: string,
    then: (found: WebElement) => Promise<WebElement> | WebElement = (found) => found,
  ): Promise<WebElement> {
    let found: WebElement | null = null
    const asked = new Error(what)
    await this.driver
      .wait(async () => {
        // A page that is just being left answers no script: look again.
        const candidates = await this.driver.executeScript<WebElement[]>(script, argument).catch(() => [])
        for (const candidate of candidates)
          try {
            found = await then(candidate)
            return true
          } catch {
            // It was redrawn while being looked at; look again.
          }
        return false
      }, PATIENCE)
      .catch(async () => {
        await this.picture(path.join(process.env.EVRIX_TEST_FOLDER ?? tmpdir(), 'not-found.png')).catch(() => undefined)
        // The driver's own error has lost where it was asked from. The picture goes with its folder; what it showed is told.
        const stands = await this.standing().catch(() => 'The page does not answer.')
        asked.stack = asked.stack?.replace(what, () => `${what}\n${stands}`)
        throw asked
      })
    return found!
  }
}

const DESK = /^\/(?!c\/|t\/|p\/|q\/|a\/|w\/|mine\/|job\/|rounds|readiness|sign-in|$)/
/** What was there before is gone and what is read for the new page has come when it answers. */
const TURN = `const [address, origin, desk, done] = arguments
const there = new RegExp(desk)
const app = document.getElementById('app')?.__vue_app__
if (location.origin !== origin || !app || !there.test(location.pathname) || !there.test(address)) return done(false)
if (location.pathname + location.search === address) return done(false)
if (window.asked === undefined) {
  window.asked = 0
  const ask = window.fetch
  window.fetch = (...all) => {
    window.asked++
    return ask(...all).finally(() => window.asked--)
  }
}
const { undo } = app.config.globalProperties.$pinia.state.value
if (undo) undo.said = null
history.pushState(null, '', address)
dispatchEvent(new PopStateEvent('popstate', { state: null }))
let quiet = 0
const look = (left) => setTimeout(() => {
  quiet = window.asked ? 0 : quiet + 1
  if (quiet > 3 || !left) done(true)
  else look(left - 1)
}, 30)
look(150)`
const SELECT = `const [one] = arguments
one.scrollIntoView({ block: 'center' })
one.focus()
one.select()`
const IN_SIGHT = `const inSight = (one) => {
  // What has no box of its own is seen in that of its parent.
  if (getComputedStyle(one).display === 'contents' && one.parentElement) return inSight(one.parentElement)
  if (!one.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return false
  return [one, ...one.querySelectorAll('*')].some((part) => part.getClientRects().length && part.getBoundingClientRect().width > 0 && part.getBoundingClientRect().height > 0)
}
`
const AIM = `const [one] = arguments
one.scrollIntoView({ block: 'center' })
window.pressed = false
one.addEventListener('click', () => { window.pressed = true }, { capture: true, once: true })`
const AT_XPATH = `${IN_SIGHT}
const found = document.evaluate(arguments[0], document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null)
return Array.from({ length: found.snapshotLength }, (_, n) => found.snapshotItem(n)).filter(inSight)`

/** The innermost elements with these words, going down only where they are. */
const WITH_WORDS = `${IN_SIGHT}
const words = arguments[0]
const says = (one) => one.textContent.replace(/[ \\t\\r\\n]+/g, ' ').trim().includes(words)
const innermost = (one) => {
  const inner = [...one.children].filter(says)
  return inner.length ? inner.flatMap(innermost) : [one]
}
return document.body && says(document.body) ? innermost(document.body).filter(inSight) : []`

const quoted = (text: string) => (text.includes("'") ? `"${text}"` : `'${text}'`)

export { By, Key, until }
