import { readFloorplan } from '#contract/floorplans'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { By, Person } from '../kit/browser'
import { median } from './table'
import type { Measure } from './table'

const [SPACES, PINS] = [500, 2_000]
const FIRST = { floor: 1_000_000, space: 1_000_001, asset: 1_000_001 }
const COLUMNS = 25
const MOST_MS = 300
const FEWEST_FRAMES = 50
const ROUNDS = 5

/** A floor of 500 spaces with 2,000 pins: how long until it is drawn, and how smoothly it is moved. */
export async function measureFloorplans(house: House, server: Running): Promise<Measure[]> {
  await fillFloor(house)
  const client = await new Client(server.url).signIn('maren.quill')
  const answered: number[] = []
  for (let n = 0; n < ROUNDS; n++) {
    const began = performance.now()
    const { spaces, assets } = await client.must(readFloorplan, { id: FIRST.floor })
    answered.push(performance.now() - began)
    if (spaces.length !== SPACES || assets.length !== PINS) throw new Error('The floor is not as large as it should be.')
  }
  const desk = await (await Person.at(server.url)).signIn('maren.quill')
  const drawn: number[] = []
  let frames: number
  // A measure that breaks off leaves no browser behind.
  try {
    for (let n = 0; n < ROUNDS; n++) drawn.push(await drawOnce(desk))
    frames = await framesWhileMoved(desk)
  } finally {
    await desk.quit()
  }
  return [
    {
      what: `a floor with ${SPACES} spaces and ${PINS} pins: from its answer to its first frame`,
      measured: `median ${median(drawn).toFixed(0)} ms, worst ${Math.max(...drawn).toFixed(0)} ms; answered in ${median(answered).toFixed(0)} ms`,
      limit: `under ${MOST_MS} ms`,
      kept: median(drawn) < MOST_MS,
    },
    { what: 'the same moved by mouse', measured: `${frames.toFixed(0)} frames a second`, limit: `at least ${FEWEST_FRAMES}`, kept: frames >= FEWEST_FRAMES },
  ]
}

/** Another floor first, so that program and styles are there; then the large one, chosen without loading the page anew. */
async function drawOnce(desk: Person): Promise<number> {
  await desk.load('/floorplans')
  await desk.find(By.css('.leaflet-container canvas'))
  await desk.driver.executeScript(`
    const small = document.querySelector('.leaflet-container')
    window.drawnAt = null
    new MutationObserver((_, observer) => {
      const board = document.querySelector('.leaflet-container')
      if (!board || board === small || !board.querySelector('canvas')) return
      observer.disconnect()
      // The second frame is asked for when the first one is out.
      requestAnimationFrame(() => requestAnimationFrame(() => (window.drawnAt = performance.now())))
    }).observe(document.body, { childList: true, subtree: true })`)
  await desk.choose('Floor', 'ZB Large floor, Tidehall')
  await desk.until('it is drawn', async () => (await desk.driver.executeScript('return window.drawnAt')) !== null)
  return desk.driver.executeScript<number>(
    `const [answer] = performance.getEntriesByType('resource').filter(({ name }) => name.endsWith('/api/floorplans/${FIRST.floor}')).slice(-1)
     return window.drawnAt - answer.responseEnd`,
  )
}

/** Frames a second while the plan is dragged to and fro, counted by the page itself. */
async function framesWhileMoved(desk: Person): Promise<number> {
  const board = await desk.find(By.css('.leaflet-container'))
  await desk.driver.executeScript(`window.frames_ = []
    const count = (at) => { window.frames_.push(at); requestAnimationFrame(count) }
    requestAnimationFrame(count)`)
  const drag = desk.driver.actions({ async: true }).move({ origin: board }).press()
  for (let n = 0; n < 40; n++) drag.move({ origin: board, x: Math.round(220 * Math.sin(n / 3)), y: Math.round(90 * Math.cos(n / 4)), duration: 50 })
  const began = await desk.driver.executeScript<number>('return performance.now()')
  await drag.release().perform()
  const [count, seconds] = await desk.driver.executeScript<[number, number]>(
    'const now = performance.now(); return [window.frames_.filter((at) => at > arguments[0]).length, (now - arguments[0]) / 1000]',
    began,
  )
  return count / seconds
}

async function fillFloor(house: House): Promise<void> {
  const connection = await house.connect()
  const [site] = await house.rows<{ id: number; site_id: number }>("SELECT id, site_id FROM place WHERE kind = 'site' ORDER BY id LIMIT 1")
  const [building] = await house.rows<{ id: number; path: string }>("SELECT id, path FROM place WHERE code = 'TID'")
  const values = [site!.site_id]
  const run = (sql: string) => connection.query(sql, values)
  const path = `${building!.path}${FIRST.floor}/`
  await run(
    `INSERT INTO place (id, site_id, parent_id, kind, code, name, path, search_text) VALUES (${FIRST.floor}, ?, ${building!.id}, 'floor', 'ZB', 'Large floor', '${path}', 'bench')`,
  )
  await run(
    `INSERT INTO place (id, site_id, parent_id, kind, code, name, path, search_text)
     SELECT ${FIRST.space} + seq, ?, ${FIRST.floor}, 'space', CONCAT('BN-', LPAD(seq, 3, '0')), CONCAT('Room ', seq), CONCAT('${path}', ${FIRST.space} + seq, '/'), CONCAT('bn room ', seq) FROM seq_0_to_${SPACES - 1}`,
  )
  await run(`INSERT INTO floorplan (place_id, version) SELECT ${FIRST.floor}, 1 FROM DUAL WHERE ? > 0`)
  const [west, south] = [`(seq MOD ${COLUMNS}) * 6`, `(seq DIV ${COLUMNS}) * 5`]
  await run(
    `INSERT INTO space_shape (space_id, plan_id, shape)
     SELECT ${FIRST.space} + seq, ${FIRST.floor}, CONCAT('[[[', ${west}, ',', ${south}, '],[', ${west} + 6, ',', ${south}, '],[', ${west} + 6, ',', ${south} + 5, '],[', ${west}, ',', ${south} + 5, ']]]')
     FROM seq_0_to_${SPACES - 1} WHERE ? > 0`,
  )
  await run(
    `INSERT INTO asset (id, site_id, place_id, path, tag, name, owner, search_text)
     SELECT ${FIRST.asset} + seq, ?, ${FIRST.space} + seq MOD ${SPACES}, CONCAT('/', ${FIRST.asset} + seq, '/'), CONCAT('BN-', LPAD(seq, 5, '0')), CONCAT('Machine ', seq), 'us', 'bench' FROM seq_0_to_${PINS - 1}`,
  )
  await run(
    `INSERT INTO asset_pin (asset_id, plan_id, east, north, version)
     SELECT ${FIRST.asset} + seq, ${FIRST.floor}, (seq MOD ${SPACES} MOD ${COLUMNS}) * 6 + 1 + (seq DIV ${SPACES}), (seq MOD ${SPACES} DIV ${COLUMNS}) * 5 + 1.5, 1 FROM seq_0_to_${PINS - 1} WHERE ? > 0`,
  )
}
