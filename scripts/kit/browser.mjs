import { mkdtempSync } from 'node:fs'
import path from 'node:path'
import chrome from 'selenium-webdriver/chrome.js'
import http from 'selenium-webdriver/http/index.js'
import { Executor } from 'selenium-webdriver/lib/http.js'
import { Name } from 'selenium-webdriver/lib/command.js'
import { Session } from 'selenium-webdriver/lib/session.js'

/** A Chromium of its own, its window exactly this large; below 500 px it is a phone. `more` goes to the program as it starts. */
export async function openBrowser(folder, width, height, more = []) {
  const options = new chrome.Options()
  options.setChromeBinaryPath('/usr/bin/chromium')
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--force-prefers-reduced-motion',
    '--hide-scrollbars',
    ...more,
    `--window-size=${width},${height}`,
    `--user-data-dir=${mkdtempSync(path.join(folder, 'browser-'))}`,
  )
  const service = new chrome.ServiceBuilder('/usr/bin/chromedriver').build()
  const driver = chrome.Driver.createSession(options, service)
  driver.server = await service.address()
  await sizeWindow(driver, width, height)
  return driver
}

export const sizeWindow = (driver, width, height) =>
  driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: width < 500 })

/** Answers the first command, which would open a browser, with one that is open. */
class OpenBefore extends Executor {
  constructor(server, session) {
    super(new http.HttpClient(server))
    this.session = session
  }

  execute(command) {
    return command.getName() === Name.NEW_SESSION ? Promise.resolve(new Session(this.session, {})) : super.execute(command)
  }
}

/** A browser that another process has opened, by where its driver listens and the name of its session. */
export function openBefore({ server, session }) {
  const driver = chrome.Driver.createSession(new chrome.Options(), new OpenBefore(server, session))
  driver.server = server
  return driver
}
