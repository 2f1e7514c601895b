import { addAsset, editAsset, readAsset } from '#contract/assets'
import {
  eraseSpace,
  findOnFloorplan,
  giveFloorplan,
  layPicture,
  listCounterPlans,
  listFloorplans,
  movePicture,
  movePin,
  readCounterPlan,
  readFloorplan,
  takeFloorplan,
} from '#contract/floorplans'
import type { Floorplan } from '#contract/floorplans'
import { editPlace, readPlace } from '#contract/places'
import { readPortraitTimeline } from '#contract/portraits'
import { planGeoJson } from '#core/floorplans'
import type { PlanGeoJson, Point } from '#core/floorplans'
import sharp from 'sharp'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** Floor plans: read, taken in and given out, pins moved; who may, and what happens when two do at once. */
let house: House
let server: Running
let maren: Client
let tobias: Client
/** Of the second site alone. */
let yusuf: Client
let bram: Client
let stranger: Client
let hatchery: number

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const placeId = async (code: string) => (await one<{ id: number }>('SELECT id FROM place WHERE code = ?', [code])).id
const planOf = async (code: string): Promise<Floorplan> => maren.must(readFloorplan, { id: await placeId(code) })

beforeAll(async () => {
  house = await House.open('floorplans')
  hatchery = await placeId('HAT')
  const only = (name: string, siteId: number) =>
    house.rows("UPDATE account_role SET site_id = ? WHERE role <> 'technician' AND account_id = (SELECT id FROM account WHERE email = ?)", [
      siteId,
      `${name}@skerry.example`,
    ])
  const { site } = await one<{ site: number }>('SELECT site_id AS site FROM place WHERE id = ?', [hatchery])
  await only('maren.quill', 1)
  await only('tobias.achterberg', 1)
  await only('yusuf.adeyemi-rourke', site)
  server = await house.start()
  stranger = new Client(server.url)
  const as = (name: string) => new Client(server.url).signIn(name)
  ;[maren, tobias, yusuf, bram] = await Promise.all([as('maren.quill'), as('tobias.achterberg'), as('yusuf.adeyemi-rourke'), as('bram.oyelaran')])
})
afterAll(() => house?.close())

const geo = (content: object | string) => ({
  file: new Blob([typeof content === 'string' ? content : JSON.stringify(content)], { type: 'application/geo+json' }),
})
const ring = (west: number, south: number, wide = 4, deep = 3): Point[] => [
  [west, south],
  [west + wide, south],
  [west + wide, south + deep],
  [west, south + deep],
  [west, south],
]
const space = (code: string, points: Point[], name = '') => ({
  type: 'Feature',
  properties: { code, name },
  geometry: { type: 'Polygon', coordinates: [points] },
})
const file = (...features: object[]) => ({ type: 'FeatureCollection', features })

describe('what is drawn', () => {
  test('every floor of the demo world is drawn, every space on it, and most machines have their pin', async () => {
    const { rows } = await maren.must(listFloorplans, {})
    expect(rows.length).toBe(20)
    expect(rows.filter(({ drawn, spaces }) => drawn !== spaces)).toEqual([])
    const floor = await planOf('TID-0')
    expect(floor.place).toMatchObject({ code: 'TID-0', name: 'Ground floor', within: 'Tidehall' })
    expect(floor.spaces.map(({ code }) => code)).toContain('TID-001')
    expect(floor.assets.filter(({ at }) => at).length).toBeGreaterThan(floor.assets.length * 0.7)
  })

  test('the work that is open on a space and on a machine is counted as in the register', async () => {
    const [busy] = await house.rows<{ id: number; parent: number; n: string }>(
      `SELECT p.id, p.parent_id AS parent, count(*) AS n FROM work_order o JOIN place p ON p.id = o.place_id
       WHERE o.state IN ('draft','to_approve','ready','dispatched','on_job','on_hold') AND o.discarded_at IS NULL AND p.kind = 'space' AND p.site_id = 1
       GROUP BY p.id ORDER BY n DESC LIMIT 1`,
    )
    const plan = await maren.must(readFloorplan, { id: busy!.parent })
    expect(plan.spaces.find(({ id }) => id === busy!.id)!.openOrders).toBe(Number(busy!.n))
  })

  test('where a place or an asset is drawn is found from either', async () => {
    const floor = await planOf('PUM-1')
    const placed = floor.assets.find(({ at }) => at)!
    const unplaced = floor.assets.find(({ at }) => !at)!
    const find = (kind: 'places' | 'assets', id: number) => maren.must(findOnFloorplan, { kind, id })
    expect(await find('assets', placed.id)).toEqual({ planId: floor.place.id, drawn: true })
    expect(await find('assets', unplaced.id)).toEqual({ planId: floor.place.id, drawn: false })
    expect(await find('places', floor.spaces[0]!.id)).toEqual({ planId: floor.place.id, drawn: true })
    expect(await find('places', floor.place.id)).toEqual({ planId: floor.place.id, drawn: true })
    expect((await maren.must(findOnFloorplan, { kind: 'places', id: await placeId('SKE') })).drawn).toBe(false)
  })

  test('a space is no floor; a floor of another site is not there for who works at one alone', async () => {
    expect((await maren.call(readFloorplan, { id: await placeId('TID-001') })).status).toBe(404)
    expect((await maren.call(readFloorplan, { id: hatchery })).status).toBe(404)
    expect((await maren.call(giveFloorplan, { id: hatchery })).status).toBe(404)
    expect((await maren.call(takeFloorplan, { id: hatchery }, geo(file(space('X', ring(0, 0)))))).status).toBe(404)
    const { rows } = await yusuf.must(listFloorplans, {})
    expect(rows.map(({ id }) => id)).toEqual([hatchery])
    expect((await yusuf.call(findOnFloorplan, { kind: 'places', id: await placeId('TID-001') })).status).toBe(404)
  })
})

describe('pins', () => {
  const pinned = async () => (await planOf('PUM-1')).assets.filter(({ at }) => at)

  test('one is moved, told of on its own timeline, moved back, taken off and placed anew', async () => {
    const [asset] = await pinned()
    const id = await placeId('PUM-1')
    const move = (at: Point | null, version: number) => maren.must(movePin, { id, assetId: asset!.id, version, at })
    const after = (plan: Floorplan) => plan.assets.find((row) => row.id === asset!.id)!
    const moved = after(await move([3.14159, 2], asset!.pinVersion))
    expect(moved).toMatchObject({ at: [3.142, 2], pinVersion: asset!.pinVersion + 1, placeId: asset!.placeId })
    const off = after(await move(null, moved.pinVersion))
    expect(off).toMatchObject({ at: null, pinVersion: moved.pinVersion + 1 })
    expect(after(await move(asset!.at, off.pinVersion)).at).toEqual(asset!.at)
    const { entries } = await maren.must(readPortraitTimeline, { register: 'assets', id: asset!.id })
    expect(entries.filter(({ kind }) => kind === 'floorplan.pin')).toHaveLength(3)
  })

  test('of two who move the same one at once, one is told', async () => {
    const [, asset] = await pinned()
    const id = await placeId('PUM-1')
    const replies = await Promise.all(
      [maren, tobias].map((who, index) => who.call(movePin, { id, assetId: asset!.id, version: asset!.pinVersion, at: [index + 1, 1] })),
    )
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
    expect(replies.find(({ status }) => status === 409)!.problem.conflict![0]!.field).toBe('at')
  })

  test('two who move different ones of a floor at once both succeed', async () => {
    const [first, second] = await pinned()
    const id = await placeId('PUM-1')
    const replies = await Promise.all([first, second].map((asset) => maren.call(movePin, { id, assetId: asset!.id, version: asset!.pinVersion, at: [2, 2] })))
    expect(replies.map(({ status }) => status)).toEqual([200, 200])
  })

  test('an asset that stands on another floor has no pin here, and one that moves there is not drawn here any more', async () => {
    const id = await placeId('PUM-1')
    const other = (await planOf('TID-0')).assets[0]!
    const refused = await maren.call(movePin, { id, assetId: other.id, version: other.pinVersion, at: [1, 1] })
    expect([refused.status, refused.problem.reasons![0]!.field]).toEqual([422, 'assetId'])
    const made = await maren.must(addAsset, { tag: 'PIN-1', name: 'Test pump', owner: 'us', placeId: await placeId('PUM-104') })
    await maren.must(movePin, { id, assetId: made.id, version: 0, at: [4, 4] })
    await maren.must(editAsset, { id: made.id, version: made.version, placeId: await placeId('TID-001') })
    expect((await planOf('PUM-1')).assets.some((row) => row.id === made.id)).toBe(false)
    const there = (await planOf('TID-0')).assets.find((row) => row.id === made.id)!
    expect(there).toMatchObject({ at: null, pinVersion: 1 })
    const placed = await maren.must(movePin, { id: await placeId('TID-0'), assetId: made.id, version: 1, at: [5, 5] })
    expect(placed.assets.find((row) => row.id === made.id)!.at).toEqual([5, 5])
  })

  test('nonsense is refused at the field, and who keeps no registers moves nothing', async () => {
    const [asset] = await pinned()
    const id = await placeId('PUM-1')
    for (const at of [[1], [1, 2, 3], ['a', 1], [1e9, 1], 'here', undefined])
      expect((await maren.call(movePin, { id, assetId: asset!.id, version: asset!.pinVersion, at })).status).toBe(400)
    expect((await bram.call(movePin, { id, assetId: asset!.id, version: asset!.pinVersion, at: [1, 1] })).status).toBe(403)
    expect((await bram.call(readFloorplan, { id })).status).toBe(403)
  })
})

describe('GeoJSON', () => {
  const take = async (code: string, content: object | string, more: object = {}) =>
    maren.call(takeFloorplan, { id: await placeId(code), ...more }, geo(content))

  test('what is given out comes in again as it is', async () => {
    const reply = await maren.call(giveFloorplan, { id: await placeId('TID-0') })
    expect(reply.headers.get('content-type')).toContain('application/geo+json')
    expect(reply.headers.get('content-disposition')).toContain('TID-0.geojson')
    const given = JSON.parse(reply.text) as PlanGeoJson
    const plan = await planOf('TID-0')
    expect(given).toEqual(JSON.parse(JSON.stringify(planGeoJson('TID-0', plan))))
    const { body } = await take('TID-0', reply.text)
    expect(body.counts).toEqual({ new: 0, drawn: 0, changed: 0, same: given.features.length, bad: 0 })
    expect(body).toMatchObject({ left: 0, taken: false })
  })

  test('looking draws nothing; good rows go in alone; spaces that are not in the register are made only when wished', async () => {
    const before = await planOf('KEL-1')
    const content = file(
      space(before.spaces[0]!.code, ring(100, 100)),
      space('KEL-199', ring(110, 100), 'Hose store'),
      space('TID-001', ring(120, 100)),
      space('KEL-102', ring(130, 100).slice(0, 4)),
    )
    const looked = (await take('KEL-1', content)).body
    expect(looked.counts).toEqual({ new: 1, drawn: 0, changed: 1, same: 0, bad: 2 })
    expect(await planOf('KEL-1')).toEqual(before)
    await take('KEL-1', content, { take: true, name: 'kelp.geojson' })
    const drawn = await planOf('KEL-1')
    expect(drawn.version).toBe(before.version + 1)
    expect(drawn.spaces.find(({ code }) => code === before.spaces[0]!.code)!.shape).toEqual([ring(100, 100).slice(0, 4)])
    expect(drawn.spaces).toHaveLength(before.spaces.length)
    const made = (await take('KEL-1', content, { take: true, make: true })).body
    expect(made.counts).toMatchObject({ new: 1, same: 1 })
    const now = await planOf('KEL-1')
    const store = now.spaces.find(({ code }) => code === 'KEL-199')!
    expect(store).toMatchObject({ name: 'Hose store', shape: [ring(110, 100).slice(0, 4)] })
    expect((await maren.must(readPlace, { id: store.id })).names).toMatchObject({ parentId: expect.stringContaining('KEL-1') as string })
    const { entries } = await maren.must(readPortraitTimeline, { register: 'places', id: now.place.id })
    expect(entries.filter(({ kind }) => kind === 'floorplan.take')).toHaveLength(2)
  })

  test('a space that stands on another floor now is not drawn on this one, and is when it comes back', async () => {
    const floor = await planOf('KEL-2')
    const room = floor.spaces[2]!
    const move = async (parentId: number) => {
      const { version } = await maren.must(readPlace, { id: room.id })
      await maren.must(editPlace, { id: room.id, version, parentId })
    }
    await move(await placeId('KEL-3'))
    expect((await planOf('KEL-2')).spaces.some(({ id }) => id === room.id)).toBe(false)
    expect((await planOf('KEL-3')).spaces.find(({ id }) => id === room.id)!.shape).toBeNull()
    await move(floor.place.id)
    expect((await planOf('KEL-2')).spaces.find(({ id }) => id === room.id)!.shape).toEqual(room.shape)
  })

  test.each([
    ['nothing', ''],
    ['no JSON', 'code,name'],
    ['another JSON', '{"a":1}'],
    ['degrees', JSON.stringify(file(space('A', ring(-9, 53, 0.001, 0.001))))],
    ['no UTF-8', 'ÿþ'],
  ])('%s is refused at the file and changes nothing', async (_, content) => {
    const before = await planOf('LAN-2')
    const reply = await maren.call(takeFloorplan, { id: before.place.id, take: true }, { file: new Blob([Buffer.from(content, 'latin1')]) })
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, 'file'])
    expect(await planOf('LAN-2')).toEqual(before)
  })

  test('a new space whose code is taken elsewhere meanwhile refuses the whole file by name', async () => {
    const content = file(space('GAN-777', ring(0, 40)), space('gan-777x', ring(10, 40)))
    // Two at once: what one makes, the other finds drawn.
    const id = await placeId('GAN-0')
    const replies = await Promise.all([maren, tobias].map((who) => who.call(takeFloorplan, { id, take: true, make: true }, geo(content))))
    expect(replies.map(({ status }) => status)).toEqual([200, 200])
    expect(await house.rows("SELECT id FROM place WHERE code LIKE 'GAN-777%'")).toHaveLength(2)
  })

  test('a space is erased by the version one saw, and is drawn again by a file', async () => {
    const plan = await planOf('LAN-1')
    const room = plan.spaces[0]!
    const given = await maren.call(giveFloorplan, { id: plan.place.id })
    const erased = await maren.must(eraseSpace, { id: plan.place.id, version: plan.version, spaceId: room.id })
    expect(erased.spaces.find(({ id }) => id === room.id)!.shape).toBeNull()
    const stale = await maren.call(eraseSpace, { id: plan.place.id, version: plan.version, spaceId: plan.spaces[1]!.id })
    expect(stale.status).toBe(409)
    const again = await maren.call(eraseSpace, { id: plan.place.id, version: erased.version, spaceId: room.id })
    expect([again.status, again.problem.reasons![0]!.field]).toEqual([422, 'spaceId'])
    await take('LAN-1', given.text, { take: true })
    expect((await planOf('LAN-1')).spaces.find(({ id }) => id === room.id)!.shape).toEqual(room.shape)
  })
})

describe('the picture under a plan', () => {
  const png = () =>
    sharp({ create: { width: 400, height: 200, channels: 3, background: '#ddd' } })
      .png()
      .toBuffer()
  const lay = async (version: number, content: Uint8Array<ArrayBuffer>) =>
    maren.call(layPicture, { id: await placeId('SLI-0'), version }, { file: new Blob([content]) })

  test('it comes to lie as wide as what is drawn, is moved, and is taken away', async () => {
    const plan = await planOf('SLI-0')
    const laid = (await lay(plan.version, new Uint8Array(await png()))).body
    expect(laid.picture).toMatchObject({ left: 0, bottom: 0, width: 42, height: 21, strength: 60 })
    const picture = { left: -1.5, bottom: 2, width: 30, strength: 35 }
    const moved = await maren.must(movePicture, { id: plan.place.id, version: laid.version, picture })
    expect(moved.picture).toMatchObject({ ...picture, height: 15 })
    expect((await maren.call(movePicture, { id: plan.place.id, version: laid.version, picture })).status).toBe(409)
    for (const nonsense of [
      { ...picture, width: 0 },
      { ...picture, strength: 101 },
      { ...picture, left: 1e6 },
    ])
      expect((await maren.call(movePicture, { id: plan.place.id, version: moved.version, picture: nonsense })).status).toBe(400)
    const gone = await maren.must(movePicture, { id: plan.place.id, version: moved.version, picture: null })
    expect(gone.picture).toBeNull()
    expect((await maren.call(movePicture, { id: plan.place.id, version: gone.version, picture: null })).status).toBe(422)
  })

  test('what is no picture is refused, and nothing lies under the plan', async () => {
    const { version } = await planOf('SLI-0')
    const refused = await lay(version, new TextEncoder().encode('%PDF-1.4 not a picture'))
    expect([refused.status, refused.problem.reasons![0]!.field]).toEqual([422, 'file'])
    expect((await planOf('SLI-0')).picture).toBeNull()
    const other = await yusuf.call(layPicture, { id: await placeId('SLI-0'), version }, { file: new Blob([new Uint8Array(await png())]) })
    expect(other.status).toBe(404)
  })
})

describe('at the Counter', () => {
  test('strangers see rooms and machines by name and nothing of the work on them', async () => {
    const { rows } = await stranger.must(listCounterPlans, { site: 'ske' })
    expect(rows.map(({ code }) => code)).toContain('TID-0')
    expect(rows.some(({ id }) => id === hatchery)).toBe(false)
    const plan = await stranger.must(readCounterPlan, { site: 'SKE', id: await placeId('TID-0') })
    expect(Object.keys(plan.spaces[0]!).sort()).toEqual(['code', 'id', 'name', 'shape'])
    expect(Object.keys(plan.assets[0]!).sort()).toEqual(['at', 'name', 'tag'])
    expect((await stranger.call(readCounterPlan, { site: 'SKE', id: hatchery })).status).toBe(404)
    expect((await stranger.call(listCounterPlans, { site: 'NONE' })).status).toBe(404)
  })

  test('machines are left out where the Counter does not ask for them', async () => {
    await house.rows(`UPDATE site SET counter_fields = '{"asset":"not_asked"}' WHERE id = 1`)
    expect((await stranger.must(readCounterPlan, { site: 'SKE', id: await placeId('TID-0') })).assets).toEqual([])
    await house.rows('UPDATE site SET counter_fields = NULL WHERE id = 1')
  })
})

test('a plan of a floor that is retired is read and not changed', async () => {
  const plan = await planOf('GAN-3')
  await house.rows('UPDATE place SET retired_at = now() WHERE id = ?', [plan.place.id])
  expect((await planOf('GAN-3')).whyNot).toContain('retired')
  const reply = await maren.call(eraseSpace, { id: plan.place.id, version: plan.version, spaceId: plan.spaces[0]!.id })
  expect([reply.status, reply.problem.reasons![0]!.code]).toEqual([422, 'retired'])
  await house.rows('UPDATE place SET retired_at = NULL WHERE id = ?', [plan.place.id])
})

test('the record of an asset stays as it is when its pin is put into another room', async () => {
  const plan = await planOf('PUM-0')
  const asset = plan.assets.find(({ at }) => at)!
  const before = await maren.must(readAsset, { id: asset.id })
  const other = plan.spaces.find(({ id, shape }) => id !== asset.placeId && shape)!
  await maren.must(movePin, { id: plan.place.id, assetId: asset.id, version: asset.pinVersion, at: other.shape![0]![0]! })
  expect(await maren.must(readAsset, { id: asset.id })).toMatchObject({ placeId: before.placeId, version: before.version })
})
