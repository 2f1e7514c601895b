import fc from 'fast-check'
import { LABEL_SHEETS, LABEL_SIZES, labelSpot, PAGE } from '#core/places'

test.each(LABEL_SIZES)('every %s label is whole on its page and none lies over another', (size) => {
  const sheet = LABEL_SHEETS[size]
  const onPage = sheet.columns * sheet.rows
  const spots = Array.from({ length: onPage + 1 }, (_, index) => labelSpot(sheet, index))
  for (const { x, y } of spots) {
    expect(x).toBeGreaterThanOrEqual(0)
    expect(y).toBeGreaterThanOrEqual(0)
    expect(x + sheet.width).toBeLessThanOrEqual(PAGE.width + 1e-9)
    expect(y + sheet.height).toBeLessThanOrEqual(PAGE.height + 1e-9)
  }
  expect(spots.at(-1)).toEqual({ ...spots[0], page: 1 })
  // As much paper is left over on the one side as on the other.
  const [left, right] = [spots[0]!.x, PAGE.width - spots[sheet.columns - 1]!.x - sheet.width]
  expect(left).toBeCloseTo(right, 9)
  fc.assert(
    fc.property(fc.nat(onPage - 1), fc.nat(onPage - 1), (one, other) => {
      if (one === other) return
      const [a, b] = [spots[one]!, spots[other]!]
      const apart = (from: number, to: number, length: number) => Math.abs(from - to) >= length - 1e-9
      expect(apart(a.x, b.x, sheet.width) || apart(a.y, b.y, sheet.height)).toBe(true)
    }),
  )
})
