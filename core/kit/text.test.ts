import { counted, foldText, formatNumber, searchWords } from '#core/kit'

test('search compares folded words', () => {
  expect(foldText('Café kitchen, BRK-002')).toBe('cafe kitchen brk 002')
  expect(searchWords(' a b c d e f g h i ')).toHaveLength(8)
  expect(searchWords('%_')).toEqual([])
})

test('numbers have at least five digits', () => {
  expect(formatNumber('R', 24018)).toBe('R-24018')
  expect(formatNumber('W', 7)).toBe('W-00007')
})

test('counts carry their noun in the right number', () => {
  expect([counted(1, 'job'), counted(2, 'job'), counted(0, 'person', 'people')]).toEqual(['1 job', '2 jobs', '0 people'])
})
