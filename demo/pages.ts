import PDFDocument from 'pdfkit'
import sharp from 'sharp'
import { boundsOf } from '#core/floorplans'
import type { Shape } from '#core/floorplans'
import { useFonts } from '#server/paper'

async function pdfOf(title: string, now: Date, draw: (pdf: PDFKit.PDFDocument) => void, layout: 'portrait' | 'landscape' = 'portrait'): Promise<Buffer> {
  // The same moment gives the same bytes.
  const pdf = new PDFDocument({ size: 'A4', layout, margin: 56, info: { Title: title, CreationDate: now, ModDate: now } })
  useFonts(pdf)
  const chunks: Buffer[] = []
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>((resolve) => pdf.on('end', resolve))
  draw(pdf)
  pdf.end()
  await ended
  return Buffer.concat(chunks)
}

/** Pages of made-up text: a title, who wrote it, then chapters, each on a page of its own. */
export const textPages = (title: string, by: string, chapters: [string, string[]][], now: Date): Promise<Buffer> =>
  pdfOf(title, now, (pdf) => {
    pdf.font('strong').fontSize(22).text(title)
    pdf.font('text').fontSize(11).fillColor('#55656a').text(by).fillColor('#17262b').moveDown()
    chapters.forEach(([heading, lines], index) => {
      if (index) pdf.addPage()
      pdf.font('strong').fontSize(14).text(heading).moveDown(0.5)
      pdf.font('text').fontSize(11)
      for (const line of lines) pdf.text(line).moveDown(0.4)
    })
  })

/** A floor drawn on paper, as wide as the sheet. */
export const planPage = (title: string, spaces: { code: string; name: string; shape: Shape }[], now: Date): Promise<Buffer> =>
  pdfOf(
    title,
    now,
    (pdf) => {
      const { west, south, east, north } = boundsOf(spaces.flatMap(({ shape }) => shape.flat()))!
      const scale = Math.min(700 / (east - west), 380 / (north - south))
      const x = (metres: number) => 60 + (metres - west) * scale
      const y = (metres: number) => 480 - (metres - south) * scale
      pdf.font('strong').fontSize(16).text(title, 60, 40)
      pdf.font('text').fontSize(9).text('As built. Lengths in metres.', 60, 62)
      for (const { code, name, shape } of spaces) {
        pdf
          .lineWidth(1.5)
          .polygon(...shape[0]!.map(([east, north]): [number, number] => [x(east), y(north)]))
          .stroke('#17262b')
        const [corner] = shape[0]!
        pdf
          .font('mono')
          .fontSize(7)
          .fillColor('#17262b')
          .text(code, x(corner![0]) + 4, y(corner![1]) - 22, { lineBreak: false })
        pdf
          .font('text')
          .fontSize(6.5)
          .text(name, x(corner![0]) + 4, y(corner![1]) - 13, { lineBreak: false })
      }
    },
    'landscape',
  )

/** A picture of a plate screwed to a machine. */
export async function plateOf(lines: string[]): Promise<{ content: Buffer; thumb: Buffer }> {
  const rows = lines.map(
    (line, index) => `<text x="70" y="${150 + index * 64}" font-size="40" font-family="monospace" fill="#1c2a2e">${line.replace(/[<&>]/g, '')}</text>`,
  )
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><rect width="900" height="600" fill="#6f7f80"/><rect x="30" y="40" width="840" height="520" rx="18" fill="#d8dad4" stroke="#4c5a5b" stroke-width="6"/>${[
    60, 840,
  ]
    .flatMap((x) => [70, 530].map((y) => `<circle cx="${x}" cy="${y}" r="12" fill="#8d9794"/>`))
    .join('')}${rows.join('')}</svg>`
  const content = await sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer()
  return { content, thumb: await sharp(content).resize({ width: 320 }).jpeg({ quality: 74 }).toBuffer() }
}
