import * as fc from 'fast-check'
import { readDay, readMoment } from './typedMoment'

/** A Tuesday. */
const now = '2026-11-24T10:40'
const value = (text: string, more = {}) => {
  const read = readMoment(text, { now, ...more })
  return 'value' in read ? read.value : read.problem
}

test.each([
  ['', null],
  ['14:30', '2026-11-24T14:30'],
  ['1430', '2026-11-24T14:30'],
  ['14.30', '2026-11-24T14:30'],
  ['9', '2026-11-24T09:00'],
  ['2:30 pm', '2026-11-24T14:30'],
  ['12am', '2026-11-24T00:00'],
  ['12 pm', '2026-11-24T12:00'],
  ['tomorrow 9', '2026-11-25T09:00'],
  ['Tomorrow at 9:15', '2026-11-25T09:15'],
  ['tomorrow', '2026-11-25T08:00'],
  ['yesterday 17:05', '2026-11-23T17:05'],
  ['+3d', '2026-11-27T08:00'],
  ['+ 3 days 16:00', '2026-11-27T16:00'],
  ['-1w', '2026-11-17T08:00'],
  ['+2h', '2026-11-24T12:40'],
  ['+90 min', '2026-11-24T12:10'],
  ['-11h', '2026-11-23T23:40'],
  ['fri 16:00', '2026-11-27T16:00'],
  ['tuesday', '2026-12-01T08:00'],
  ['next mon 7', '2026-11-30T07:00'],
  ['24 nov 9:15', '2026-11-24T09:15'],
  ['Tue 24 Nov 2026, 14:05', '2026-11-24T14:05'],
  ['nov 30, 2027', '2027-11-30T08:00'],
  ['24 nov 14', '2026-11-24T14:00'],
  ['3.12.', '2026-12-03T08:00'],
  ['3.12. 7:45', '2026-12-03T07:45'],
  ['3/12/26 7', '2026-12-03T07:00'],
  ['2026-12-03T07:45', '2026-12-03T07:45'],
  ['2 jan', '2027-01-02T08:00'],
  ['1 oct', '2026-10-01T08:00'],
  ['29 feb', expect.stringMatching(/^Type a day and a time/)],
])('“%s” is %s', (text, expected) => {
  expect(value(text)).toEqual(expected)
})

test('the usual time is the one of the field, and the month may come first', () => {
  expect(value('tomorrow', { usual: '16:20' })).toBe('2026-11-25T16:20')
  expect(value('4/5/2027', { monthFirst: true })).toBe('2027-04-05T08:00')
  expect(value('4/5/2027')).toBe('2027-05-04T08:00')
  expect(value('4.5.2027', { monthFirst: true })).toBe('2027-05-04T08:00')
})

test.each(['25:00', '14:60', '13 pm', 'soon', '31.2.', '30 xyz', '+3', 'mo', '2026-02-30', '14:30:00'])('“%s” says nothing that could be meant', (text) => {
  expect(readMoment(text, { now })).toEqual({ problem: expect.stringContaining('14:30') })
})

test('a day alone', () => {
  const day = (text: string) => readDay(text, { now })
  expect(day('fri')).toEqual({ value: '2026-11-27' })
  expect(day(' ')).toEqual({ value: null })
  expect(day('24/11')).toEqual({ value: '2026-11-24' })
  expect(day('14:30')).toEqual({ problem: expect.stringContaining('fri') })
})

test('whatever day and time is written out in full is read as it is', () => {
  const any = fc.date({ min: new Date('1950-01-01'), max: new Date('2150-01-01'), noInvalidDate: true })
  fc.assert(
    fc.property(any, (date) => {
      const wall = date.toISOString().slice(0, 16)
      expect(value(wall)).toBe(wall)
      const [year, month, day] = wall.slice(0, 10).split('-').map(Number)
      expect(value(`${day}.${month}.${year} ${wall.slice(11)}`)).toBe(wall)
      const said = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', day: 'numeric', month: 'short', year: 'numeric', weekday: 'short' }).format(date)
      expect(value(`${said.replace(',', '')} ${wall.slice(11)}`)).toBe(wall)
    }),
  )
})
