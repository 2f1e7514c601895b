import { mkdtempSync } from 'node:fs'
import path from 'node:path'
import { Builder } from 'selenium-webdriver'
import chrome from 'selenium-webdriver/chrome.js'

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
  const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(new chrome.ServiceBuilder('/usr/bin/chromedriver')).build()
  await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: width < 500 })
  return driver
}
