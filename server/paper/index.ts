import PDFDocument from 'pdfkit'
import { useFonts } from './fonts'

export { useFonts } from './fonts'

/** What papers that are sent out are drawn with: the fonts of the application, its ink, a line with an amount at its end. */
export const INK = '#17262B'
export const SOFT = '#55656A'
const LINE = '#D9D2C3'
export const LEFT = 50
export const RIGHT = 545
export type Paper = PDFKit.PDFDocument

/** A paper on A4 whose pages say what they are of. Answers the bytes. */
export async function drawPaper(title: string, draw: (document: Paper) => void): Promise<Uint8Array> {
  const document = new PDFDocument({
    size: 'A4',
    margins: { top: 50, bottom: 60, left: LEFT, right: 50 },
    bufferPages: true,
    info: { Title: title },
  })
  useFonts(document)
  const chunks: Buffer[] = []
  document.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>((resolve) => document.on('end', resolve))
  document.fillColor(INK)
  draw(document)
  numberPages(document, title)
  document.end()
  await ended
  return Buffer.concat(chunks)
}

export function row(document: Paper, face: 'text' | 'strong', left: string, right: string, indent = 0): void {
  document
    .font(face)
    .fontSize(face === 'strong' ? 10 : 9)
    .fillColor(INK)
  const top = document.y
  document.text(left, LEFT + indent, top, { width: RIGHT - LEFT - 100 - indent })
  const bottom = document.y
  document.font('mono').text(right, RIGHT - 90, top, { width: 90, align: 'right' })
  document.y = Math.max(bottom, document.y)
}

export function rule(document: Paper): void {
  document.moveTo(LEFT, document.y).lineTo(RIGHT, document.y).strokeColor(LINE).lineWidth(0.7).stroke()
  document.y += 6
}

function numberPages(document: Paper, number: string): void {
  const { count } = document.bufferedPageRange()
  for (let page = 0; page < count; page++) {
    document.switchToPage(page)
    document.page.margins.bottom = 0
    document
      .font('text')
      .fontSize(8)
      .fillColor(SOFT)
      .text(`${number}, page ${page + 1} of ${count}`, LEFT, 800, { width: RIGHT - LEFT, align: 'right' })
  }
}
