import { inspectionState } from '#core/methods'

test('an inspection stands as its steps say', () => {
  const step = (state: 'open' | 'done' | 'left', outside = false) => ({ state, outside })
  expect(inspectionState([])).toBeNull()
  expect(inspectionState([step('open'), step('open')])).toBe('not_started')
  expect(inspectionState([step('done'), step('open')])).toBe('under_way')
  expect(inspectionState([step('done'), step('left')])).toBe('clean')
  expect(inspectionState([step('done', true), step('open')])).toBe('with_findings')
  expect(inspectionState([step('done', true), step('done')])).toBe('with_findings')
})
