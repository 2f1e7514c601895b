import { readinessCounts, worstOf } from '#core/readiness'

test('of what several methods leave, the worst counts; where none says anything, nothing changes', () => {
  expect(worstOf(['ready', 'needs_cleaning', null])).toBe('needs_cleaning')
  expect(worstOf(['needs_cleaning', 'out_of_use', 'ready'])).toBe('out_of_use')
  expect(worstOf(['ready'])).toBe('ready')
  expect([worstOf([]), worstOf([null, null])]).toEqual([null, null])
})

test('every space is counted once', () => {
  expect(readinessCounts([{ state: 'ready' }, { state: null }, { state: 'ready' }, { state: 'out_of_use' }])).toEqual({
    ready: 2,
    needs_cleaning: 0,
    out_of_use: 1,
    unsaid: 1,
  })
})
