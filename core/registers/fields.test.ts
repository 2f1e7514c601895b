import { REGISTER_EVENTS, isOverOn, namedIn, neededIn, ONE_OF, PERSON_FIELDS, REGISTERS } from '#core/registers'

test('which fields are needed and which name another record', () => {
  expect(neededIn(PERSON_FIELDS)).toEqual(['name'])
  expect(namedIn(PERSON_FIELDS)).toEqual([
    { name: 'placeId', of: 'place' },
    { name: 'payerId', of: 'payer' },
  ])
})

test('what ends on a day is good through that day', () => {
  expect([isOverOn('2026-11-23', '2026-11-23'), isOverOn('2026-11-23', '2026-11-24'), isOverOn(null, '2026-11-24')]).toEqual([false, true, false])
})

test('one of each register is spoken of with its article', () => {
  for (const register of REGISTERS) expect(ONE_OF[register].article).toBe(/^[aeiou]/.test(ONE_OF[register].name) ? 'an' : 'a')
})

test('a move and a replacement are told with where from, where to and by what', () => {
  const { about: moved } = REGISTER_EVENTS['register.move']
  expect(moved({ from: 'GAN', to: 'KEL', with: 3 })).toBe('from GAN to KEL, with 3 below it')
  expect(moved({ from: null, to: null, with: 0 })).toBe('to the top')
  const { about: retired } = REGISTER_EVENTS['register.retire']
  expect([retired({ successor: 'CH-3' }), retired({})]).toEqual(['replaced by CH-3', ''])
})
