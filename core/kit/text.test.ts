import {
  cleanDeep,
  cleanText,
  counted,
  foldText,
  formatNumber,
  isPlainName,
  isPrefix,
  numbersAsked,
  plainName,
  Refusal,
  refuse,
  searchWords,
  splitCode,
  withoutLinks,
} from '#core/kit'

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

// What may stand in text: XML 1.0, section 2.2; noncharacters: Unicode, section 23.7; overrides: UAX #9.
test('text keeps what every format can carry, and nothing that turns its neighbours round', () => {
  expect(cleanText('a\r\nb\rc\nd\te')).toBe('a\nb\nc\nd\te')
  expect(cleanText('\u0000a\u0008\u000B\u000Cb\u001F\u007F\u009Fc')).toBe('abc')
  expect(cleanText('a\u202Eb\u2066c\u2069d')).toBe('abcd')
  expect(cleanText('a\uFDD0b\uFFFEc\uFFFFd')).toBe('abcd')
  expect(cleanText('a\u{1FFFE}b\u{10FFFF}c\u{1F600}d')).toBe('abc\u{1F600}d')
  expect(cleanText('a\uD800b\uDC00c')).toBe('abc')
  expect(cleanText('é ß 漢 ־ \u200F')).toBe('é ß 漢 ־ \u200F')
})

test('whatever comes in is cleaned where it is text, however deep, and stays what it is otherwise', () => {
  const at = new Date(0)
  const file = Buffer.from('a\u0000')
  expect(cleanDeep({ a: 'x\u0000', b: [{ c: 'y\u0007' }, 7, null, true], at, file })).toEqual({ a: 'x', b: [{ c: 'y' }, 7, null, true], at, file })
  expect(cleanDeep({ at }).at).toBe(at)
  expect(cleanDeep({ file }).file).toBe(file)
})

test('a name is one line without a link, and goes out as one', () => {
  expect([isPlainName('Ada Quill'), isPlainName('Ada\nBcc: all'), isPlainName('Ada\u2028x'), isPlainName('Ada www.win.top')]).toEqual([
    true,
    false,
    false,
    false,
  ])
  expect(plainName('  Ada\r\n  of\u2028Kelp  ')).toBe('Ada of Kelp')
  expect(plainName('Ada https://win.example/x y')).toBe('Ada (link) y')
  expect(withoutLinks('see www.a.b and win-it.shop/now, not e.g. or 3.5')).toBe('see (link) and (link) not e.g. or 3.5')
})

test.each([
  ['w31406', 'W-31406', 'W-000031406'],
  [' W 31406 ', 'W-31406', 'W-000031406'],
  ['w-31406', 'W-31406', 'W-000031406'],
  ['r - 24018', 'R-24018', 'R-000024018'],
  ['SKE123', 'SKE-123', 'SKE-000000123'],
  ['w00123', 'W-00123', 'W-000000123'],
  ['w000', 'W-000', 'W-000000000'],
  ['w123456789', 'W-123456789', 'W-123456789'],
])('“%s” asks for %s, with any digits before it', (text, first, last) => {
  const asked = numbersAsked(text)
  expect([asked[0], asked.includes(last)]).toEqual([first, true])
  expect(new Set(asked).size).toBe(asked.length)
})
test.each(['31406', 'w12', 'abcdefg123', 'w1234567890', 'w31406 pump', 'the w31406', ''])('“%s” asks for no number', (text) =>
  expect(numbersAsked(text)).toEqual([]),
)
test('a number is written with the digits its site says, and more when it has outgrown them', () => {
  expect([formatNumber('W', 7, 3), formatNumber('W', 7), formatNumber('W', 12_345, 3)]).toEqual(['W-007', 'W-00007', 'W-12345'])
  expect([isPrefix('W'), isPrefix('FACILI'), isPrefix('FACILIT'), isPrefix('w'), isPrefix('W-'), isPrefix('')]).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
  ])
})

test('a code is found with and without a blank where letters and digits meet', () => {
  expect([splitCode('gan204'), splitCode('204b'), splitCode('a1b2'), splitCode('gan'), splitCode('204')]).toEqual(['gan 204', '204 b', 'a 1 b 2', 'gan', '204'])
  expect(foldText('  Ünder—the  stairs! ')).toBe('under the stairs')
})

test('a refusal says every reason, each with its field', () => {
  const refusal = new Refusal([
    { code: 'a', sentence: 'One.' },
    { code: 'b', sentence: 'Two.', field: 'x' },
  ])
  expect([refusal.message, refusal.name, refusal.reasons.length]).toEqual(['One. Two.', 'Refusal', 2])
  const thrown = (() => {
    try {
      return refuse('c', 'Three.', 'y')
    } catch (error) {
      return error as Refusal
    }
  })()
  expect(thrown.reasons).toEqual([{ code: 'c', sentence: 'Three.', field: 'y' }])
})
