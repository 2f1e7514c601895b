import { isMeant } from './markUp'

test('a tap is no mark; a stroke is', () => {
  const at = (x: number, y: number) => ({ x, y })
  expect(isMeant({ kind: 'arrow', from: at(0.5, 0.5), to: at(0.505, 0.5) })).toBe(false)
  expect(isMeant({ kind: 'blur', from: at(0.2, 0.2), to: at(0.4, 0.3) })).toBe(true)
  expect(isMeant({ kind: 'line', points: [at(0, 0), at(0, 0.1)] })).toBe(false)
  expect(isMeant({ kind: 'turn' })).toBe(true)
})
