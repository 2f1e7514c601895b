import { mayHold, PLACE_KINDS } from '#core/places'

test('what may stand in what: a site in nothing, a floor in a building, a space nearly anywhere', () => {
  const holders = (inner: (typeof PLACE_KINDS)[number]) => PLACE_KINDS.filter((outer) => mayHold(outer, inner)).join(', ')
  expect(Object.fromEntries(PLACE_KINDS.map((kind) => [kind, holders(kind)]))).toEqual({
    site: '',
    building: 'site, grounds',
    floor: 'building',
    space: 'site, building, floor, space, grounds',
    grounds: 'site, grounds',
  })
})
