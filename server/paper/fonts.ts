import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { inflateSync } from 'node:zlib'

const require = createRequire(import.meta.url)
const FILES = {
  text: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
  strong: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff',
  mono: '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff',
}
export type Face = keyof typeof FILES

const opened = new Map<Face, Buffer>()

/** Lets a document be drawn with the fonts of the application, by the names “text”, “strong” and “mono”. */
export function useFonts(document: PDFKit.PDFDocument): void {
  for (const face of Object.keys(FILES) as Face[]) document.registerFont(face, fontOf(face))
}

/** A font as it is read most quickly: packed, its outlines would be unpacked anew for each letter. */
function fontOf(face: Face): Buffer {
  const found = opened.get(face) ?? unpacked(readFileSync(require.resolve(FILES[face])))
  opened.set(face, found)
  return found
}

/** Bytes of the header and of one entry, in a packed font and in a plain one. */
const PACKED = { header: 44, entry: 20 }
const PLAIN = { header: 12, entry: 16 }
const fourfold = (length: number) => Math.ceil(length / 4) * 4

/**
 * The plain font (SFNT) in a packed one (WOFF).
 * @throws where it is none. Source: WOFF File Format 1.0 (W3C Recommendation, 13 December 2012), sections 3 to 5; the
 *   header of a plain font is that of ISO/IEC 14496-22 (Open Font Format).
 */
export function unpacked(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('This is no WOFF font.')
  const count = woff.readUInt16BE(12)
  const font = Buffer.alloc(woff.readUInt32BE(16))
  const doublings = Math.floor(Math.log2(count))
  font.writeUInt32BE(woff.readUInt32BE(4), 0)
  font.writeUInt16BE(count, 4)
  font.writeUInt16BE(2 ** doublings * PLAIN.entry, 6)
  font.writeUInt16BE(doublings, 8)
  font.writeUInt16BE((count - 2 ** doublings) * PLAIN.entry, 10)
  const tables = Array.from({ length: count }, (_, index) => {
    const entry = PACKED.header + index * PACKED.entry
    const [offset, kept, length, sum] = [4, 8, 12, 16].map((at) => woff.readUInt32BE(entry + at)) as [number, number, number, number]
    return { entry, offset, kept, length, sum, to: PLAIN.header + index * PLAIN.entry }
  })
  let place = PLAIN.header + count * PLAIN.entry
  // Listed by name, kept in the order they had.
  for (const { entry, offset, kept, length, sum, to } of tables.sort((a, b) => a.offset - b.offset)) {
    const table = woff.subarray(offset, offset + kept)
    woff.copy(font, to, entry, entry + 4)
    font.writeUInt32BE(sum, to + 4)
    font.writeUInt32BE(place, to + 8)
    font.writeUInt32BE(length, to + 12)
    font.set(kept < length ? inflateSync(table) : table, place)
    place += fourfold(length)
  }
  return font
}
