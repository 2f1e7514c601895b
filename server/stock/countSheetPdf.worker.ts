import { drawPaper, LEFT, RIGHT, row, rule, SOFT } from '#server/paper'

/** A store as it is counted: what should be there is left away. */
export interface CountPaper {
  store: string
  on: string
  lines: { code: string; name: string; unit: string }[]
}

/** Draws a count sheet on A4, a line a part, with room for what is found. Answers the bytes. */
export default ({ store, on, lines }: CountPaper): Promise<Uint8Array> =>
  drawPaper(`Count of ${store}, ${on}`, (document) => {
    document.font('strong').fontSize(18).text(`Count of ${store}`)
    document
      .font('text')
      .fontSize(10)
      .fillColor(SOFT)
      .text(`${on}. Counted by: ______________________   Write down what is there, and what does not stand here.`, { width: RIGHT - LEFT })
    document.moveDown()
    for (const { code, name, unit } of lines) {
      if (document.y > 750) document.addPage()
      rule(document)
      row(document, 'text', `${code}   ${name}`, `________ ${unit}`)
      document.moveDown(0.3)
    }
    for (let empty = 0; empty < 3; empty++) {
      if (document.y > 750) document.addPage()
      rule(document)
      row(document, 'text', ' ', '________')
      document.moveDown(0.3)
    }
  })
