import { ASSET_FIELDS, UNIFORMAT, underWarranty, warrantyHeed } from '#core/assets'

describe('UNIFORMAT II at level 3, as ASTM E1557 classifies (counts of NISTIR 6389, from memory)', () => {
  const codes = Object.keys(UNIFORMAT)

  test('seven major groups, 22 group elements, 79 individual elements', () => {
    expect([...new Set(codes.map((code) => code[0]))].join('')).toBe('ABCDEFG')
    expect(new Set(codes.map((code) => code.slice(0, 3))).size).toBe(22)
    expect(codes).toHaveLength(79)
  })

  test('a code is a letter and four digits, the last of them nought, and stands in order', () => {
    for (const code of codes) expect(code).toMatch(/^[A-G]\d{3}0$/)
    expect([...codes].sort()).toEqual(codes)
  })

  test.each([
    ['B3010', 'Roof coverings'],
    ['C1020', 'Interior doors'],
    ['D1010', 'Elevators and lifts'],
    ['D2010', 'Plumbing fixtures'],
    ['D3030', 'Cooling generating systems'],
    ['D4010', 'Sprinklers'],
    ['D5020', 'Lighting and branch wiring'],
    ['E1090', 'Other equipment'],
    ['G2020', 'Parking lots'],
  ])('%s is %s', (code, name) => expect(UNIFORMAT[code]).toBe(name))
})

describe('a warranty', () => {
  const warranty = { warrantyFrom: '2025-03-01', warrantyUntil: '2026-02-28', warrantyCovers: 'labour' as const, warrantyTerms: null }

  test('holds from its first day through its last, and before its end where its beginning is unknown', () => {
    const on = (day: string) => underWarranty(warranty, day)
    expect([on('2025-02-28'), on('2025-03-01'), on('2026-02-28'), on('2026-03-01')]).toEqual([false, true, true, false])
    expect(underWarranty({ warrantyFrom: null, warrantyUntil: '2026-02-28' }, '1999-01-01')).toBe(true)
    expect(underWarranty({ warrantyFrom: '2025-03-01', warrantyUntil: null }, '2025-06-01')).toBe(false)
  })

  test('is to be heeded while it holds, with what it covers', () => {
    const written = (day: string) => `<${day}>`
    expect(warrantyHeed(warranty, '2025-12-24', written)).toBe('Under warranty until <2026-02-28>, labour: claim before paying.')
    expect(warrantyHeed({ ...warranty, warrantyCovers: null }, '2025-12-24', written)).toBe('Under warranty until <2026-02-28>: claim before paying.')
    expect(warrantyHeed(warranty, '2026-03-01', written)).toBeNull()
  })
})

test('an asset is made with a tag, a name, a place and whose it is; everything else may come later', () => {
  expect(Object.entries(ASSET_FIELDS).flatMap(([name, field]) => (field.needed ? [name] : []))).toEqual(['tag', 'name', 'placeId', 'owner'])
})
