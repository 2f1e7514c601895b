import fc from 'fast-check'
import { likelyTheSame } from './duplicates'
import { nearness, Precedents } from '#core/requests'
import type { Decided } from '#core/requests'

const DAY = 86_400_000
const NOW = Date.parse('2026-11-23T10:30:00Z')
let id = 0
const decided = (text: string, more: Partial<Decided> = {}): Decided => ({
  id: ++id,
  text,
  placePath: [1, 2, 3],
  assetId: null,
  categoryId: null,
  tradeId: null,
  at: NOW - 30 * DAY,
  ...more,
})
const WATER = 1
const LIGHT = 2

function history(): Precedents {
  const known = new Precedents()
  const water = ['Tap drips', 'The tap is dripping all night', 'Water drips from the tap', 'Shower tap drips']
  const light = ['Lamp flickers', 'Ceiling lamp flickering', 'Light flickers over the sink', 'The lamp is out']
  water.forEach((text, n) => known.put(decided(text, { categoryId: WATER, tradeId: 10, placePath: [1, 2, 3 + n], assetId: 100 + n })))
  light.forEach((text, n) => known.put(decided(text, { categoryId: LIGHT, tradeId: 20, placePath: [1, 5, 9 + n] })))
  return known
}
const asked = (text: string, more: Partial<Decided> = {}) => ({ text, placePath: [1, 2, 3], assetId: null, at: NOW, ...more })

test('what others like it were decided to be, with the words that say so and how sure that is', () => {
  const { category, trade } = history().guess(asked('A tap that drips'))
  expect(category).toMatchObject({ id: WATER, sure: 'almost certain' })
  // As the reporter wrote them, not by their stems.
  expect(category!.words).toEqual(expect.arrayContaining(['tap', 'drips']))
  expect(trade!.id).toBe(10)
  expect(history().guess(asked('flickering lamp')).category!.id).toBe(LIGHT)
})

test('nothing is guessed of words nobody has used, nor where those alike do not agree', () => {
  expect(history().guess(asked('Zebra crossing faded'))).toEqual({ category: null, trade: null, asset: null })
  const torn = new Precedents()
  for (let n = 0; n < 3; n++) torn.put(decided('Strange noise', { categoryId: n + 1 }))
  expect(torn.guess(asked('Strange noise')).category).toBeNull()
})

test('filler that many write proves nothing about a thing nobody has written of', () => {
  const known = new Precedents()
  for (let n = 0; n < 40; n++) known.put(decided(`Lamp ${n} flickers, since this morning, I saw it myself`, { categoryId: LIGHT }))
  expect(known.guess(asked('Gyroscope wobbles', {})).category).toBeNull()
  expect(known.guess({ ...asked('Gyroscope wobbles'), more: 'Since this morning, I saw it myself.' }).category).toBeNull()
  expect(known.guess({ ...asked('Lamp flickers'), more: 'Since Sunday.' }).category).toMatchObject({ id: LIGHT, sure: 'almost certain' })
})

test('an asset is suggested only where the asked place is, and never over one that is chosen', () => {
  expect(history().guess(asked('Tap drips')).asset).toMatchObject({ id: 100 })
  expect(history().guess(asked('Tap drips', { placePath: [1, 5, 77] })).asset).toBeNull()
  expect(history().guess(asked('Tap drips', { assetId: 4 })).asset).toBeNull()
})

test('of the same words, the nearer place, the same asset and the later come first', () => {
  const known = new Precedents()
  const far = decided('Drain is blocked', { placePath: [1, 8, 9] })
  const near = decided('Drain is blocked', { placePath: [1, 2, 4] })
  const same = decided('Drain is blocked', { placePath: [1, 8, 9], assetId: 7 })
  const old = decided('Drain is blocked', { placePath: [1, 2, 4], at: NOW - 900 * DAY })
  for (const row of [far, near, same, old]) known.put(row)
  const order = (more: Partial<Decided>) => known.alike(asked('blocked drain', more), 4).map((one) => one.id)
  expect(order({})[0]).toBe(near.id)
  expect(order({}).indexOf(near.id)).toBeLessThan(order({}).indexOf(old.id))
  expect(order({ assetId: 7, placePath: [1, 8, 9] })[0]).toBe(same.id)
})

test('decided otherwise, it counts as it is now; taken out, it counts no more', () => {
  const known = new Precedents()
  const row = decided('Gate squeals', { categoryId: 5 })
  known.put(row)
  expect(known.guess(asked('gate squeals')).category!.id).toBe(5)
  known.put({ ...row, categoryId: 6, text: 'Gate squeals at night' })
  expect([known.size, known.guess(asked('gate squeals')).category!.id]).toEqual([1, 6])
  known.drop(row.id)
  expect([known.size, known.alike(asked('gate squeals'), 5)]).toEqual([0, []])
})

test('nearness is symmetric, 1 for the same place, 0 for other sites', () => {
  const path = fc.array(fc.nat(4), { maxLength: 5 })
  fc.assert(
    fc.property(path, path, (a, b) => {
      expect(nearness(a, b)).toBe(nearness(b, a))
      expect(nearness(a, b)).toBeGreaterThanOrEqual(0)
      expect(nearness(a, b)).toBeLessThanOrEqual(1)
    }),
  )
  expect(nearness([1, 2, 3], [1, 2, 3])).toBe(1)
  expect(nearness([1, 2, 3], [4, 2, 3])).toBe(0)
  expect(nearness([1, 2, 3], [1, 2, 4])).toBeCloseTo(2 / 3)
})

test('scores fall, and stay between 0 and 1', () => {
  const known = history()
  fc.assert(
    fc.property(fc.array(fc.constantFrom('tap', 'drips', 'lamp', 'out', 'zebra'), { maxLength: 5 }), (words) => {
      const scores = known.alike(asked(words.join(' ')), 8).map((one) => one.score)
      expect(scores).toEqual([...scores].sort((a, b) => b - a))
      for (const score of scores) expect(score > 0 && score <= 1).toBe(true)
    }),
  )
})

describe('perhaps the same', () => {
  const here = [1, 7, 31, 102]
  const asked = { id: 1, text: 'Tap drips', more: 'The right one, since Monday.', placePath: here, assetId: null }
  const row = (id: number, text: string, placePath: number[], more = '', assetId: number | null = null) => ({ id, text, more, placePath, assetId })

  test('the same words in the same room come first, then other words there, then the same words next door', () => {
    const open = [
      row(2, 'Lamp flickers', [1, 7, 31, 104]),
      row(3, 'Dripping tap', [1, 7, 31, 103]),
      row(4, 'Water all over', here),
      row(5, 'Tap is dripping', here),
    ]
    expect(likelyTheSame(asked, open, 5).map((one) => one.id)).toEqual([5, 3, 4])
  })

  test('not itself, and not the same words in another building, unless about the same asset', () => {
    const elsewhere = [1, 9, 40, 300]
    expect(likelyTheSame(asked, [row(1, 'Tap drips', here), row(2, 'Tap drips', elsewhere)], 5)).toEqual([])
    expect(likelyTheSame({ ...asked, assetId: 8 }, [row(2, 'Tap drips', elsewhere, '', 8)], 5).map((one) => one.id)).toEqual([2])
  })

  test('no more than asked for, and where nobody said the place the words alone decide', () => {
    const many = Array.from({ length: 9 }, (_, n) => row(n + 10, 'Tap drips', here))
    expect(likelyTheSame(asked, many, 5).map((one) => one.id)).toEqual([18, 17, 16, 15, 14])
    expect(likelyTheSame({ ...asked, placePath: [] }, [row(2, 'Tap drips', here, 'The right one, since Monday.')], 5)).toHaveLength(1)
  })
})
