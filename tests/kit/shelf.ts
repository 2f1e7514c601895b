import { renameSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { openBefore, openBrowser, sizeWindow } from '../../scripts/kit/browser.mjs'
import type { Browser } from '../../scripts/kit/browser.mjs'
import { takeFrom } from './takeFrom'

/** Where browsers wait for the next suite: a file for each, with where its driver listens. None where the tests are not run together. */
const shelf = process.env.EVRIX_TEST_SHELF

/** A browser nobody uses, of this run or new: one of before has no page, no cookie and no rule of whoever had it. */
export async function takeBrowser(folder: string, width: number, height: number): Promise<Browser> {
  for (const one of takeFrom<{ server: string; session: string }>(shelf, folder)) {
    try {
      const browser = openBefore(one)
      await sizeWindow(browser, width, height)
      return browser
    } catch {
      // It has ended.
      continue
    }
  }
  return openBrowser(folder, width, height)
}

/** For the next who needs one; what is in it goes with its window. @param origins where it was */
export async function putBack(browser: Browser, origins: readonly string[]): Promise<void> {
  if (!shelf) return browser.quit()
  try {
    await browser.deleteNetworkConditions()
    await browser.sendDevToolsCommand('Browser.resetPermissions', {})
    await browser.sendDevToolsCommand('Network.clearBrowserCookies', {})
    const before = await browser.getAllWindowHandles()
    await browser.switchTo().newWindow('tab')
    const blank = await browser.getWindowHandle()
    for (const one of before) {
      await browser.switchTo().window(one)
      await browser.close()
    }
    await browser.switchTo().window(blank)
    for (const origin of origins) await browser.sendDevToolsCommand('Storage.clearDataForOrigin', { origin, storageTypes: 'all' })
    const session = (await browser.getSession()).getId()
    // Written beside and moved: nobody reads half a file.
    const ready = path.join(shelf, '..', `${session}.json`)
    writeFileSync(ready, JSON.stringify({ server: browser.server, session }))
    renameSync(ready, path.join(shelf, `${session}.json`))
  } catch {
    await browser.quit()
  }
}
