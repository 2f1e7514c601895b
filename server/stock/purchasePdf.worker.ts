import { formatMinor, lineAmount } from '#core/kit'
import { LEFT, RIGHT, SOFT, drawPaper, row, rule } from '#server/paper'
import type { Paper } from '#server/paper'

/** A purchase order as the vendor reads it. */
export interface PurchasePaper {
  number: string
  on: string
  from: string[]
  to: string[]
  deliverTo: string
  expectedOn: string | null
  currency: string
  note: string | null
  lines: { code: string; name: string; unit: string; quantity: string; priceMinor: number | null }[]
}

/** Draws a purchase order on A4. Answers the bytes. */
export default (paper: PurchasePaper): Promise<Uint8Array> =>
  drawPaper(paper.number, (document) => {
    document.font('strong').fontSize(18).text(`Purchase order ${paper.number}`)
    document.font('text').fontSize(10).fillColor(SOFT).text(paper.on).moveDown(0.6)
    const top = document.y
    block(document, 'To', paper.to, LEFT)
    const left = document.y
    document.y = top
    block(document, 'From', paper.from, LEFT + 270)
    document.y = Math.max(left, document.y)
    document.x = LEFT
    document.moveDown(0.6)
    row(document, 'text', `Deliver to: ${paper.deliverTo}`, '')
    if (paper.expectedOn) row(document, 'text', `Expected on: ${paper.expectedOn}`, '')
    document.moveDown(0.6)
    let total = 0
    for (const { code, name, unit, quantity, priceMinor } of paper.lines) {
      if (document.y > 740) document.addPage()
      rule(document)
      const amount = priceMinor === null ? null : lineAmount(quantity, priceMinor)
      total += amount ?? 0
      row(document, 'strong', `${code}  ${name}`, amount === null ? '' : formatMinor(amount))
      row(document, 'text', `${quantity} ${unit}${priceMinor === null ? ', price as agreed' : ` × ${formatMinor(priceMinor)}`}`, '')
    }
    rule(document)
    row(document, 'strong', `Total without tax, in ${paper.currency}`, formatMinor(total))
    if (paper.note)
      document
        .moveDown(0.6)
        .font('text')
        .fontSize(10)
        .text(paper.note, LEFT, undefined, { width: RIGHT - LEFT })
  })

function block(document: Paper, title: string, lines: string[], x: number): void {
  document.font('text').fontSize(8.5).fillColor(SOFT).text(title, x, document.y)
  document.fontSize(10).fillColor('#17262B')
  for (const line of lines) document.text(line, x)
}
