import { isNamed } from './named'

test.each([
  ['Open Board', 'board', true],
  ['Open Board', ' Board ', true],
  ['Go to In the field', 'in the field', true],
  ['Compute a plan', 'compu', true],
  ['New call', 'new', true],
  // A word of a record as well, and no name of the act.
  ['Open Board', 'boar', false],
  ['Open Board', 'cupboard', false],
  ['Open Cupboard', 'board', false],
  ['Search everything', 'se', false],
  ['Open Board', '', false],
])('of %p, %p is its name: %p', (label, typed, expected) => {
  expect(isNamed(label, typed)).toBe(expected)
})
