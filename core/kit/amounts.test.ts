import fc from 'fast-check'
import { currencyDecimals, decimalSignOf, readDecimal, readMoney, readPercent, writeDecimal, writeMoney } from '#core/kit'
import type { DecimalSign } from '#core/kit'

const money = (text: string, sign: DecimalSign = '.', currency = 'EUR') => {
  const read = readMoney(text, sign, currency)
  return read.problem ?? read.value
}

test.each([
  // The decimal sign is the last one, when one or two digits follow it.
  ['12,34', 1_234],
  ['12,5', 1_250],
  ['12.34', 1_234],
  ['12.5', 1_250],
  [',5', 50],
  ['1250', 125_000],
  ['1,234.56', 123_456],
  ['1.234,56', 123_456],
  ['1 234,56', 123_456],
  ['1\u202F234,56', 123_456],
  ['1’234.50', 123_450],
  ['1,234,567', 123_456_700],
  ['1,234,567.8', 123_456_780],
  ['12,', 1_200],
  ['−12,34', -1_234],
  ['', null],
  ['  ', null],
])('“%s” is read as %s', (text, minor) => expect([money(text, '.'), money(text, ',')]).toEqual([minor, minor]))

test('what could be either is read as the site writes', () => {
  expect([money('1,234', '.'), money('1.234', ',')]).toEqual([123_400, 123_400])
  // A third decimal is none of this currency’s; of one with three it is.
  expect(money('1,234', ',')).toBe('Write at most 2 decimals.')
  expect([money('1,234', ',', 'KWD'), money('1.234', '.', 'KWD')]).toEqual([1_234, 1_234])
  expect(money('0,234', '.', 'KWD')).toBe(234)
})

test.each(['12,34,5', '1.23.456', 'twelve', '1,2.3,4', '--5', '5-', '1e3', '0x10', '.', ',', '1,23,456', '٣'])('“%s” is no amount', (text) =>
  expect(money(text)).toMatch(/^Write /),
)

test('an amount no column holds is refused rather than cut', () => expect(money('99999999')).toBe('This is more than an amount here may be.'))

// Decimals against the International Components for Unicode that Node carries, which follow ISO 4217 for these.
test.each(['EUR', 'GBP', 'USD', 'JPY', 'KWD', 'BHD', 'TND', 'KRW', 'CHF', 'CLF'])('%s has the decimals of ISO 4217', (currency) =>
  expect(currencyDecimals(currency)).toBe(new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits),
)

test('what is written is read back, in either way of writing and with any number of decimals', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -2_000_000_000, max: 2_000_000_000 }),
      fc.constantFrom<DecimalSign>('.', ','),
      fc.constantFrom('EUR', 'JPY', 'KWD'),
      (minor, sign, currency) => {
        expect(readMoney(writeMoney(minor, sign, currency), sign, currency)).toEqual({ value: minor })
      },
    ),
  )
})

test('quantities and percentages are read by the same reader', () => {
  expect(readDecimal('1,5', '.', 3)).toEqual({ value: '1.5' })
  expect(readDecimal('0,125', '.', 3)).toEqual({ value: '0.125' })
  expect(readDecimal('1,2345', '.', 3).problem).toContain('at most 3')
  expect(readDecimal('007', '.', 0)).toEqual({ value: '7' })
  expect(readPercent('13,5 %', '.')).toEqual({ value: 1_350 })
  expect(readPercent('33.33', ',')).toEqual({ value: 3_333 })
})

test('the decimal sign of a locale', () => expect([decimalSignOf('en-IE'), decimalSignOf('de-DE'), decimalSignOf('nonsense!')]).toEqual(['.', ',', '.']))

test('noughts at either end, signs, and what is too fine', () => {
  const read = (text: string, places = 2) => readDecimal(text, '.', places).value ?? readDecimal(text, '.', places).problem
  expect([read('1.500'), read('10.00'), read('100'), read('0.10'), read('000.5'), read('-0'), read('+5'), read('−.5')]).toEqual([
    '1.50',
    '10.00',
    '100',
    '0.10',
    '0.5',
    '0',
    '5',
    '-0.5',
  ])
  expect([read('1.25', 1), read('1.5', 0), read('1.2345', 3)]).toEqual(['Write at most 1 decimal.', 'Write a whole number.', 'Write at most 3 decimals.'])
  expect([read('x', 0), read('x', 1), read('x', 3)]).toEqual(['Write a number like 1250.', 'Write a number like 1250.5.', 'Write a number like 1250.500.'])
  expect([read('1-2'), read('1,234,56'), read('0,500')]).toEqual([expect.stringContaining('like 1250.50'), expect.stringContaining('like 1250.50'), '0.50'])
  expect(readPercent('x', ',')).toEqual({ problem: 'Write a number like 1250,50.' })
  expect(readPercent('', ',')).toEqual({ value: null })
  expect([money('0'), money('0,00'), money('-0,5')]).toEqual([0, 0, -50])
})

test('digits are written in groups of three, as the site does', () => {
  expect([writeDecimal('1234567.5', '.'), writeDecimal('1234567.5', ','), writeDecimal('-1234', ','), writeDecimal('999', '.')]).toEqual([
    '1,234,567.5',
    '1.234.567,5',
    '−1.234',
    '999',
  ])
  expect([writeMoney(0, '.', 'EUR'), writeMoney(-5, ',', 'EUR'), writeMoney(1234, '.', 'JPY'), writeMoney(7, '.', 'KWD')]).toEqual([
    '0.00',
    '−0,05',
    '1,234',
    '0.007',
  ])
})
