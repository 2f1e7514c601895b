import { readFileSync } from 'node:fs'
import PDFDocument from 'pdfkit'
import { unpacked } from './fonts'

const files = [
  'next/files/atkinson-hyperlegible-next-latin-400-normal',
  'next/files/atkinson-hyperlegible-next-latin-700-normal',
  'mono/files/atkinson-hyperlegible-mono-latin-400-normal',
]
const woffs = files.map((file) => readFileSync(require.resolve(`@fontsource/atkinson-hyperlegible-${file}.woff`)))

/** The sum of 32-bit words, cut off at 32 bits: the checksum of ISO/IEC 14496-22 (Open Font Format), “Calculating checksums”. */
function checksum(bytes: Buffer): number {
  const whole = Buffer.concat([bytes, Buffer.alloc((4 - (bytes.length % 4)) % 4)])
  let sum = 0
  for (let at = 0; at < whole.length; at += 4) sum = (sum + whole.readUInt32BE(at)) >>> 0
  return sum
}

test('unpacked, each table has the checksum its font says, begins at four bytes, and all of them fill it (WOFF 1.0 and ISO/IEC 14496-22)', () => {
  for (const woff of woffs) {
    const font = unpacked(woff)
    const entries = Array.from({ length: font.readUInt16BE(4) }, (_, index) => font.subarray(12 + index * 16, 28 + index * 16))
    const names = entries.map((entry) => entry.toString('latin1', 0, 4))
    expect(names).toEqual([...names].sort())
    expect(names).toEqual(expect.arrayContaining(['cmap', 'glyf', 'head', 'hhea', 'hmtx', 'loca', 'maxp', 'name', 'post']))
    let end = 12 + 16 * entries.length
    for (const entry of [...entries].sort((a, b) => a.readUInt32BE(8) - b.readUInt32BE(8))) {
      const [name, sum, offset, length] = [entry.toString('latin1', 0, 4), ...[4, 8, 12].map((at) => entry.readUInt32BE(at))] as [
        string,
        number,
        number,
        number,
      ]
      const table = Buffer.from(font.subarray(offset, offset + length))
      // The one table that holds the checksum of all others is summed without it.
      if (name === 'head') table.writeUInt32BE(0, 8)
      expect([name, offset, checksum(table)]).toEqual([name, end, sum])
      end += Math.ceil(length / 4) * 4
    }
    expect(end).toBe(font.length)
    expect(font.length).toBe(woff.readUInt32BE(16))
  }
})

test('lines are as long, packed or not, as the package that draws them measures them', () => {
  const measured = (font: Buffer) => new PDFDocument().font(font).fontSize(11).widthOfString('Pump 12 — “dépôt”, 50 €')
  for (const woff of woffs) {
    expect(measured(woff)).toBeGreaterThan(80)
    expect(measured(unpacked(woff))).toBe(measured(woff))
  }
})

test('what is no packed font is refused', () => {
  expect(() => unpacked(Buffer.from('OTTO and something else'))).toThrow('no WOFF font')
})
