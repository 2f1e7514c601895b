import PDFDocument from 'pdfkit'
import QRCode from 'qrcode'
import { LABEL_SHEETS, labelSpot, PAGE } from '#core/places'
import type { LabelSheet, LabelSize } from '#core/places'
import { useFonts } from '#server/paper'

export interface Label {
  code: string
  name: string
  within: string
  /** What to do with it. */
  says: string
  /** Where the code leads. */
  address: string
}

export interface LabelJob {
  size: LabelSize
  heading: string
  labels: Label[]
}

/** Points in a millimetre. */
const MM = 72 / 25.4
/** White modules around the code (ISO/IEC 18004 asks for four). */
const QUIET = 4
/** Type sizes in points: the smallest still reads at arm’s length. */
const TYPE: Record<LabelSize, { code: number; name: number; small: number; pad: number }> = {
  small: { code: 11, name: 9, small: 7, pad: 1.5 },
  medium: { code: 18, name: 14, small: 9, pad: 4 },
  large: { code: 34, name: 26, small: 14, pad: 10 },
}

/** Draws A4 sheets of labels: the code as shapes, so that it is sharp at any size. Answers the bytes. */
export default async function drawLabels({ size, heading, labels }: LabelJob): Promise<Uint8Array> {
  const sheet = LABEL_SHEETS[size]
  const document = new PDFDocument({ size: [PAGE.width * MM, PAGE.height * MM], margin: 0, autoFirstPage: false, info: { Title: heading } })
  useFonts(document)
  const chunks: Buffer[] = []
  document.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>((resolve) => document.on('end', resolve))
  let page = -1
  labels.forEach((label, index) => {
    const spot = labelSpot(sheet, index)
    if (spot.page !== page) {
      document.addPage()
      page = spot.page
    }
    drawLabel(document, sheet, size, label, heading, spot.x * MM, spot.y * MM)
  })
  document.end()
  await ended
  return Buffer.concat(chunks)
}

function drawLabel(document: PDFKit.PDFDocument, sheet: LabelSheet, size: LabelSize, label: Label, heading: string, x: number, y: number): void {
  const type = TYPE[size]
  const pad = type.pad * MM
  const [width, height] = [sheet.width * MM, sheet.height * MM]
  const side = Math.min(height - 2 * pad, width * 0.48)
  drawCode(document, label.address, x + pad, y + (height - side) / 2, side)
  const left = x + pad + side + pad
  const room = x + width - pad - left
  const fit = (text: string, font: string, points: number, lines: number) => {
    document.font(font).fontSize(points).fillColor('#000')
    document.text(text, left, document.y, { width: room, height: lines * document.currentLineHeight(true) + 0.5, ellipsis: true })
  }
  document.y = y + pad + (size === 'small' ? 0 : pad)
  fit(label.code, 'mono', type.code, 1)
  document.y += type.small * 0.3
  fit(label.name, 'strong', type.name, size === 'small' ? 2 : 3)
  if (label.within) fit(label.within, 'text', type.small, 2)
  document.y += type.small * 0.4
  fit(label.says, 'text', type.small, 2)
  fit(heading, 'text', type.small, 1)
}

function drawCode(document: PDFKit.PDFDocument, address: string, x: number, y: number, side: number): void {
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' })
  const step = side / (modules.size + 2 * QUIET)
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      // A hair wider than a module, so that no white line shows between two.
      if (modules.get(row, column)) document.rect(x + (column + QUIET) * step, y + (row + QUIET) * step, step * 1.02, step * 1.02)
  document.fill('#000')
}
