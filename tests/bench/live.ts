import { acceptRequest, enterCall, readRequest, triageRequest } from '#contract/requests'
import { Client } from '../kit'
import type { Running } from '../kit'
import { Person } from '../kit/browser'
import { median } from './table'
import type { Measure } from './table'

const ROUNDS = 15

/** From the moment a request is accepted until the order can be read on another open Desk. */
export async function measureLive(server: Running): Promise<Measure[]> {
  const watcher = await (await Person.at(server.url)).signIn('tobias.achterberg')
  await watcher.load('/desk/planning')
  await watcher.reads('Live')
  const desk = await new Client(server.url).signIn('maren.quill')
  const took: number[] = []
  for (let n = 0; n < ROUNDS; n++) {
    const summary = `Measured ${n} ${Math.random().toString(36).slice(2, 8)}`
    const { id } = await desk.must(enterCall, { siteId: 1, placeId: 20, summary, description: 'Measured.' })
    const { version } = await desk.must(readRequest, { id })
    const sheet = await desk.must(triageRequest, { id, version, categoryId: 1, consequence: 'safety', urgency: 'now', payerId: 1 })
    // The page notes by itself when the words appear, so that asking it costs nothing.
    await watcher.driver.executeScript(
      'window.seenAt = 0; const words = arguments[0]; const look = () => { if (!window.seenAt && document.body.textContent.includes(words)) window.seenAt = Date.now() }; new MutationObserver(look).observe(document.body, { childList: true, subtree: true, characterData: true })',
      summary,
    )
    const began = Date.now()
    await desk.must(acceptRequest, { id, version: sheet.version })
    await watcher.driver.wait(async () => (await watcher.driver.executeScript('return window.seenAt')) !== 0, 10_000)
    took.push(Number(await watcher.driver.executeScript('return window.seenAt')) - began)
  }
  await watcher.quit()
  return [
    {
      what: 'request accepted to visible on another open Desk',
      measured: `${median(took)} ms (worst ${Math.max(...took)})`,
      limit: 'median under 300 ms',
      kept: median(took) < 300,
    },
  ]
}
