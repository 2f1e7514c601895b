import { Person } from '../kit/browser'
import type { House, Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const SLOWER = 4
const MOST_MS = 50
const WORDS = 'The second tap from the left drips, worse in the morning'

/**
 * How long a letter typed into a field of the heaviest Sheets takes until it is drawn, with the processor slowed: a
 * draft with every field of the plan open, and a request with the grid, its suggestions and its history.
 */
export async function measureTyping(house: House, server: Running): Promise<Measure[]> {
  const desk = await (await Person.at(server.url)).signIn('maren.quill')
  const [draft] = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE state = 'draft' AND discarded_at IS NULL ORDER BY id LIMIT 1")
  const [request] = await house.rows<{ id: number }>("SELECT id FROM request WHERE state = 'new' ORDER BY id LIMIT 1")
  const measures = [
    await typed(desk, `/desk/planning/order/${draft!.id}`, 'Summary', 'the summary on the Sheet of a draft'),
    await typed(desk, `/desk/intake/request/${request!.id}`, 'Description', 'the description on the Sheet of a request'),
  ]
  await desk.quit()
  return measures
}

async function typed(desk: Person, address: string, label: string, where: string): Promise<Measure> {
  await desk.load(address)
  await desk.reads('Timeline')
  await desk.type(label, '')
  await desk.slow(SLOWER)
  // From the key to the frame that shows it, told by the page itself.
  await desk.driver.executeScript(`window.took = []
    addEventListener('keydown', (event) => {
      const began = event.timeStamp
      requestAnimationFrame(() => { const channel = new MessageChannel(); channel.port1.onmessage = () => window.took.push(performance.now() - began); channel.port2.postMessage(0) })
    }, true)`)
  for (const letter of WORDS) await desk.keys(letter)
  const took = await desk.driver.executeScript<number[]>('return window.took')
  await desk.slow(1)
  return {
    what: `a letter typed into ${where}, processor slowed ${SLOWER} times`,
    measured: `median ${median(took).toFixed(0)} ms, worst ${Math.max(...took).toFixed(0)} ms of ${took.length}`,
    limit: `median at most ${MOST_MS} ms`,
    kept: took.length === WORDS.length && median(took) <= MOST_MS,
  }
}
