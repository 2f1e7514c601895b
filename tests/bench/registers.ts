import { readAsset } from '#contract/assets'
import type { Endpoint } from '#contract/kit'
import { findAssets, findPlaces, readPlace } from '#contract/places'
import { readPortraitCosts, readPortraitTimeline, readPortraitWork, readTree, readTreePath } from '#contract/portraits'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { fillWithOrders } from './big'
import { median } from './table'
import type { Measure } from './table'

const ORDERS = 1_000_000
const ON_ONE_ASSET = 10_000
const MOST_MS = 150
const ROUNDS = 20
/** 20 buildings of 25 floors of 200 spaces, in each space a machine and a part of it. */
const [BUILDINGS, FLOORS, SPACES] = [20, 25, 200]
const FIRST = { building: 1_000_000, floor: 1_100_000, space: 2_000_000, asset: 3_000_000, part: 5_000_000 }
const ALL_SPACES = BUILDINGS * FLOORS * SPACES

/** The tree of 100,000 places and 200,000 assets, and the Portrait of an asset with 10,000 orders among a million. */
export async function measureRegisters(house: House, server: Running): Promise<Measure[]> {
  await fillWithOrders(house, ORDERS)
  await fillRegisters(house)
  const desk = await new Client(server.url).signIn('maren.quill')
  const [site] = await house.rows<{ id: number }>("SELECT id FROM place WHERE kind = 'site' ORDER BY id LIMIT 1")
  const asset = FIRST.asset + 1
  const take = async <Input extends object, Answer>(what: string, endpoint: Endpoint<Input, Answer>, input: Input, holds: (answer: Answer) => boolean) => {
    const took: number[] = []
    let right = true
    for (let n = 0; n < ROUNDS; n++) {
      const began = performance.now()
      const answer = await desk.must(endpoint, input)
      took.push(performance.now() - began)
      right &&= holds(answer)
    }
    const ms = median(took)
    return {
      what,
      measured: `${ms.toFixed(0)} ms at the median${right ? '' : ', and the answer is wrong'}`,
      limit: `under ${MOST_MS} ms`,
      kept: right && ms < MOST_MS,
    }
  }
  return [
    await take('tree, first view with badges', readTree, {}, ({ rows }) => rows.some((row) => row.open > 10_000)),
    await take('tree, the buildings of a site', readTree, { under: 'place', id: site!.id }, ({ rows }) => rows.length >= BUILDINGS),
    await take('tree, the 200 spaces of a floor', readTree, { under: 'place', id: FIRST.floor + 1 }, ({ rows }) => rows.length === SPACES),
    await take('tree, the machines of a space', readTree, { under: 'place', id: FIRST.space + 1 }, ({ rows }) => rows.length === 1 && rows[0]!.below === 1),
    await take('tree, the way down to a part', readTreePath, { under: 'asset', id: FIRST.part + 9 }, ({ nodes }) => nodes.length === 6),
    await take('a place found by typing', findPlaces, { q: 'room 4711 wing' }, ({ rows }) => rows.length > 0),
    await take('an asset found by typing', findAssets, { q: 'BM-047110' }, ({ rows }) => rows.length > 0),
    await take('an asset found by part of its name', findAssets, { q: 'machine 47110' }, ({ rows }) => rows.length > 0),
    await take('Portrait of an asset with 10,000 orders: head', readAsset, { id: asset }, ({ tag }) => tag === 'BM-000001'),
    await take('its work and who knows it', readPortraitWork, { register: 'assets', id: asset }, ({ finished }) => finished > ON_ONE_ASSET / 2),
    await take('its cost by year', readPortraitCosts, { register: 'assets', id: asset }, ({ years }) => years.length > 0),
    await take('its timeline', readPortraitTimeline, { register: 'assets', id: asset }, () => true),
    await take('Portrait of a building of 5,000 spaces: head', readPlace, { id: FIRST.building + 1 }, ({ work }) => work.openOrders > 0),
  ]
}

export async function fillRegisters(house: House): Promise<void> {
  const connection = await house.connect()
  const run = (sql: string) => connection.query(sql)
  const [site] = await house.rows<{ id: number; site_id: number }>("SELECT id, site_id FROM place WHERE kind = 'site' ORDER BY id LIMIT 1")
  const { id: root, site_id: siteId } = site!
  const place = (id: string, parent: string, kind: string, code: string, name: string, path: string, from: string) =>
    run(
      `INSERT INTO place (id, site_id, parent_id, kind, code, name, path, search_text) SELECT ${id}, ${siteId}, ${parent}, '${kind}', ${code}, ${name}, ${path}, LOWER(CONCAT(${code}, ' ', ${name}, ' wing')) FROM ${from}`,
    )
  const building = `${FIRST.building} + s.seq`
  await place(
    building,
    String(root),
    'building',
    "CONCAT('WING', s.seq)",
    "CONCAT('Wing ', s.seq)",
    `CONCAT('/${root}/', ${building}, '/')`,
    `seq_1_to_${BUILDINGS} s`,
  )
  const floor = `${FIRST.floor} + s.seq`
  const ofFloor = `${FIRST.building} + 1 + (s.seq - 1) DIV ${FLOORS}`
  await place(
    floor,
    ofFloor,
    'floor',
    "CONCAT('F', s.seq)",
    "CONCAT('Level ', s.seq)",
    `CONCAT('/${root}/', ${ofFloor}, '/', ${floor}, '/')`,
    `seq_1_to_${BUILDINGS * FLOORS} s`,
  )
  const space = `${FIRST.space} + s.seq`
  const floorOf = `${FIRST.floor} + 1 + (s.seq - 1) DIV ${SPACES}`
  const buildingOf = `${FIRST.building} + 1 + (s.seq - 1) DIV ${SPACES * FLOORS}`
  await place(
    space,
    floorOf,
    'space',
    "CONCAT('S', LPAD(s.seq, 6, '0'))",
    "CONCAT('Room ', s.seq)",
    `CONCAT('/${root}/', ${buildingOf}, '/', ${floorOf}, '/', ${space}, '/')`,
    `seq_1_to_${ALL_SPACES} s`,
  )
  const asset = (id: string, parent: string, tag: string, name: string, path: string) =>
    run(
      `INSERT INTO asset (id, site_id, parent_id, place_id, tag, name, path, search_text) SELECT ${id}, ${siteId}, ${parent}, ${space}, ${tag}, ${name}, ${path}, LOWER(REPLACE(CONCAT(${tag}, ' ', ${name}), '-', ' ')) FROM seq_1_to_${ALL_SPACES} s`,
    )
  const machine = `${FIRST.asset} + s.seq`
  await asset(machine, 'NULL', "CONCAT('BM-', LPAD(s.seq, 6, '0'))", "CONCAT('Machine ', s.seq)", `CONCAT('/', ${machine}, '/')`)
  const part = `${FIRST.part} + s.seq`
  await asset(part, machine, "CONCAT('BP-', LPAD(s.seq, 6, '0'))", "CONCAT('Part ', s.seq)", `CONCAT('/', ${machine}, '/', ${part}, '/')`)
  await run('SET FOREIGN_KEY_CHECKS = 0')
  await run(
    `UPDATE work_order SET place_id = ${FIRST.space} + 1 + id % ${ALL_SPACES}, asset_id = ${FIRST.asset} + 1 + id % ${ALL_SPACES} WHERE state NOT IN ('done', 'checked', 'closed', 'cancelled')`,
  )
  await run(
    `UPDATE work_order SET place_id = ${FIRST.space} + 1, asset_id = ${FIRST.asset} + 1 WHERE state IN ('done', 'closed') AND finished_at IS NOT NULL ORDER BY id DESC LIMIT ${ON_ONE_ASSET}`,
  )
  await run('ANALYZE TABLE place, asset, work_order')
  await connection.end()
}
