import type { RecordedAct } from './acts'
import { partsWithActs, usedParts } from './carriedParts'

const lies = [
  { storeId: 7, free: '2', mine: true },
  { storeId: 1, free: '10', mine: false },
]
const parts = [
  { id: 5, inStock: '12', lies },
  { id: 6, inStock: '0', lies: [] },
]
const act = (name: 'part' | 'partBack', input: { partId: number; quantity: string; storeId?: number }): RecordedAct => ({
  name,
  visitId: 1,
  at: '2026-11-23T10:00:00Z',
  input,
})
const free = (acts: RecordedAct[]) => partsWithActs(parts, acts)[0]!.lies.map((one) => one.free)

test('what was taken without signal is not taken twice; what came back is there again', () => {
  expect(free([])).toEqual(['2', '10'])
  expect(free([act('part', { partId: 5, quantity: '0.5', storeId: 7 })])).toEqual(['1.5', '10'])
  expect(free([act('part', { partId: 5, quantity: '3', storeId: 1 }), act('partBack', { partId: 5, quantity: '1', storeId: 1 })])).toEqual(['2', '8'])
  // Where nobody said which store, the first it lies in.
  expect(free([act('part', { partId: 5, quantity: '2' })])).toEqual(['0', '10'])
  expect(free([act('part', { partId: 5, quantity: '99', storeId: 7 })])).toEqual(['0', '10'])
  expect(free([act('part', { partId: 6, quantity: '1' })])).toEqual(['2', '10'])
  expect(partsWithActs(parts, [act('part', { partId: 5, quantity: '2' })])[0]!.inStock).toBe('10')
})

test('a job has what was taken less what came back', () => {
  const move = (code: string, quantity: string) => ({ code, name: `Part ${code}`, unit: 'pc', quantity })
  expect(usedParts([move('A', '2.000'), move('B', '1'), move('A', '-0.5'), move('B', '-1')])).toEqual(
    [move('A', '1.5')].map((one) => expect.objectContaining(one)),
  )
  expect(usedParts([])).toEqual([])
})
