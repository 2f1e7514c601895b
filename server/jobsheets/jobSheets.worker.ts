import QRCode from 'qrcode'
import { COPY_NAMES } from '#core/jobsheets'
import type { Copy } from '#core/jobsheets'
import { drawPaper, INK, LEFT, RIGHT, row, rule, SOFT } from '#server/paper'
import type { Paper } from '#server/paper'
import type { JobPaper } from './jobPaper'

/** A technician’s day, in front of its jobs. */
export interface DayPaper {
  title: string
  who: string
  day: string
  rows: { when: string; number: string; summary: string; place: string; kind: string; bring: number }[]
  note: string
}
export interface JobSheetsJob {
  title: string
  day: DayPaper | null
  papers: { copy: Copy; paper: JobPaper }[]
}

const CODE = 84
/** White modules around the code (ISO/IEC 18004 asks for four). */
const QUIET = 4
/** Below this nothing more is begun: the foot of the page stands there. */
const FLOOR = 690
const FOOT = 700
const WIDTH = RIGHT - LEFT
const PRIORITY_WIDTH: Record<string, number> = { emergency: 10, urgent: 6, routine: 3, deferred: 1 }

/** Draws job sheets, each on one page, whatever is written on it. Answers the bytes. */
export default ({ title, day, papers }: JobSheetsJob): Promise<Uint8Array> =>
  drawPaper(title, (document) => {
    if (day) drawDay(document, day)
    papers.forEach(({ copy, paper }, index) => {
      if (day || index) document.addPage()
      drawJob(document, copy, paper)
    })
  })

function drawDay(document: Paper, { who, day, rows, note }: DayPaper): void {
  document.font('strong').fontSize(18).text(who)
  document.font('text').fontSize(11).fillColor(SOFT).text(day).moveDown(0.8).fillColor(INK)
  if (!rows.length) document.text(note)
  for (const job of rows) {
    if (document.y > 740) document.addPage()
    rule(document)
    const top = document.y
    document.font('mono').fontSize(10).text(job.when, LEFT, top, { width: 100 })
    document.font('strong').text(`${job.number}  ${job.summary}`, LEFT + 105, top, { width: WIDTH - 105 })
    const bring = job.bring ? `, ${job.bring} to bring` : ''
    document
      .font('text')
      .fontSize(9)
      .fillColor(SOFT)
      .text(`${job.place}  ·  ${job.kind.toLowerCase()}${bring}`, { width: WIDTH - 105 })
    document.fillColor(INK).moveDown(0.4)
  }
}

function drawJob(document: Paper, copy: Copy, paper: JobPaper): void {
  drawHead(document, copy, paper)
  const page = new Page(document, copy === 'desk' ? FLOOR - 10 : FLOOR)
  page.facts([
    ['Where', paper.place],
    ['Asset', paper.asset],
    ['Getting in', paper.access.join(' ') || null],
    ['Contact', paper.contact],
    ['Agreed', paper.agreed],
    ['Finish by', paper.due],
    ['State', copy === 'worker' ? null : paper.state],
  ])
  page.text('What is wrong', paper.description, 110)
  if (paper.noteForWorker) page.text('Note', paper.noteForWorker, 70)
  if (paper.noteForPayer) page.text(copy === 'payer' ? 'A note for you' : 'Note for the payer', paper.noteForPayer, 140)
  page.list('Dangers', paper.hazards)
  page.list(
    'To bring',
    paper.bring.map(({ text, many }) => (many > 1 ? `${many} × ${text}` : text)),
  )
  page.list('Parts', paper.parts)
  page.boxes(paper.steps)
  if (copy !== 'worker') page.list('Outcome', paper.outcome)
  if (paper.money) page.money(paper.money)
  page.list('Done here before', paper.earlier)
  if (page.cut) page.says('There is more than fits on this page: open the job by its code.')
  drawFoot(document, copy, paper)
}

function drawHead(document: Paper, copy: Copy, paper: JobPaper): void {
  const top = document.page.margins.top
  drawCode(document, paper.address, RIGHT - CODE, top - 6)
  const width = WIDTH - CODE - 16
  document.font('text').fontSize(9).fillColor(SOFT).text(`${paper.site}  ·  ${COPY_NAMES[copy]}`, LEFT, top, { width })
  document.font('mono').fontSize(15).fillColor(INK).text(paper.number, { width })
  const before = document.y
  const indent = paper.priority ? PRIORITY_WIDTH[paper.priority]! + 7 : 0
  document
    .font('strong')
    .fontSize(15)
    .text(paper.summary, LEFT + indent, before, { width: width - indent, height: 40, ellipsis: true })
  if (paper.priority) document.rect(LEFT, before + 1, PRIORITY_WIDTH[paper.priority]!, document.y - before - 4).fill(INK)
  document.font('text').fontSize(10).fillColor(SOFT)
  if (paper.priorityName) document.text(paper.priorityName, LEFT, document.y + 1, { width })
  document.fillColor(INK)
  const MOST = 4
  for (const { who, when, kind } of paper.visits.slice(0, MOST))
    document.font('text').fontSize(10).text(`${when}  ·  ${who}  ·  ${kind.toLowerCase()}`, LEFT, document.y, { width, height: 14, ellipsis: true })
  if (paper.visits.length > MOST)
    document
      .fillColor(SOFT)
      .text(`and ${paper.visits.length - MOST} more visits`)
      .fillColor(INK)
  document.y = Math.max(document.y, top + CODE) + 8
}

/** The code as shapes, so that it is sharp at any size. */
function drawCode(document: Paper, address: string, x: number, y: number): void {
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' })
  const side = CODE / (modules.size + 2 * QUIET)
  for (let line = 0; line < modules.size; line++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(line, column)) document.rect(x + (column + QUIET) * side, y + (line + QUIET) * side, side + 0.05, side + 0.05)
  document.fill(INK)
}

/** What is written under the head, from above down, as long as there is room for it. */
class Page {
  cut = false
  constructor(
    private readonly document: Paper,
    private readonly floor: number,
  ) {}

  private hasRoom(height: number): boolean {
    const fits = this.document.y + height <= this.floor
    if (!fits) this.cut = true
    return fits
  }

  private head(title: string): void {
    rule(this.document)
    this.document.font('strong').fontSize(9).fillColor(SOFT).text(title, LEFT).fillColor(INK)
  }

  facts(rows: [string, string | null][]): void {
    rule(this.document)
    for (const [name, value] of rows) {
      if (!value || !this.hasRoom(14)) continue
      const top = this.document.y
      this.document.font('text').fontSize(9).fillColor(SOFT).text(name, LEFT, top, { width: 80 })
      this.document
        .fontSize(10)
        .fillColor(INK)
        .text(value, LEFT + 85, top, { width: WIDTH - 85, height: 40, ellipsis: true })
      this.document.y += 2
    }
  }

  text(title: string, words: string, most: number): void {
    if (!words.trim() || !this.hasRoom(34)) return
    this.head(title)
    const room = Math.min(most, this.floor - this.document.y)
    this.document.font('text').fontSize(10)
    if (this.document.heightOfString(words, { width: WIDTH }) > room) this.cut = true
    this.document.text(words, LEFT, this.document.y, { width: WIDTH, height: room, ellipsis: true })
    this.document.y += 4
  }

  list(title: string, lines: readonly string[]): void {
    if (!lines.length || !this.hasRoom(34)) return
    this.head(title)
    for (const line of lines)
      if (this.hasRoom(26)) this.document.font('text').fontSize(10).text(line, LEFT, this.document.y, { width: WIDTH, height: 26, ellipsis: true })
    this.document.y += 4
  }

  boxes(steps: JobPaper['steps']): void {
    if (!steps.length || !this.hasRoom(34)) return
    this.head('Steps')
    for (const { text, measures, done } of steps) {
      if (!this.hasRoom(26)) continue
      const top = this.document.y
      this.document
        .lineWidth(0.8)
        .strokeColor(INK)
        .rect(LEFT, top + 1.5, 9, 9)
        .stroke()
      if (done)
        this.document
          .moveTo(LEFT + 1.5, top + 6)
          .lineTo(LEFT + 4, top + 9)
          .lineTo(LEFT + 8, top + 3)
          .stroke()
      const wide = measures || done ? WIDTH - 160 : WIDTH - 16
      this.document
        .font('text')
        .fontSize(10)
        .text(text, LEFT + 16, top, { width: wide, height: 26, ellipsis: true })
      const bottom = this.document.y
      const said = done && done !== 'done' ? done : measures ? `${measures}:` : ''
      if (said)
        this.document
          .fontSize(9)
          .fillColor(SOFT)
          .text(said, RIGHT - 140, top + 1, { width: done ? 140 : 80, height: 12, ellipsis: true })
      if (measures && !done)
        this.document
          .moveTo(RIGHT - 55, top + 11)
          .lineTo(RIGHT, top + 11)
          .strokeColor(SOFT)
          .lineWidth(0.6)
          .stroke()
      this.document.fillColor(INK)
      this.document.y = Math.max(bottom, top + 14)
    }
    this.document.y += 4
  }

  money({ currency, lines, total, estimate, payers }: NonNullable<JobPaper['money']>): void {
    if (!this.hasRoom(60)) return
    this.head(`Cost, in ${currency}`)
    for (const { text, amount } of lines) if (this.hasRoom(40)) row(this.document, 'text', text, amount)
    row(this.document, 'strong', 'Cost so far', total)
    if (estimate) row(this.document, 'text', 'Estimate', estimate)
    for (const payer of payers) if (this.hasRoom(14)) row(this.document, 'text', `Paid by ${payer}`, '')
    this.document.y += 4
  }

  says(words: string): void {
    this.document
      .font('strong')
      .fontSize(9)
      .text(words, LEFT, Math.min(this.document.y + 2, FOOT - 14), { width: WIDTH })
  }
}

/** Where who does it writes by hand; whom to call. */
function drawFoot(document: Paper, copy: Copy, paper: JobPaper): void {
  document.y = FOOT
  document.x = LEFT
  rule(document)
  if (copy === 'worker') {
    const labels = ['Begun', 'Left', 'What was done', 'Name and signature']
    const widths = [70, 70, 205, 150]
    let x = LEFT
    const top = document.y
    for (const [index, label] of labels.entries()) {
      document.font('text').fontSize(8).fillColor(SOFT).text(label, x, top, { width: widths[index] })
      document
        .moveTo(x, top + 42)
        .lineTo(x + widths[index]! - 10, top + 42)
        .strokeColor(SOFT)
        .lineWidth(0.6)
        .stroke()
      x += widths[index]!
    }
    document.y = top + 50
  }
  document.font('text').fontSize(8).fillColor(SOFT).text(`${paper.site}, ${paper.deskPhone}`, LEFT, document.y, { width: WIDTH })
  document.fillColor(INK)
}
