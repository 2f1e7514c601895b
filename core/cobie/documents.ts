import { DOCUMENT_KIND_NAMES } from '#core/documents'
import type { DocumentKind } from '#core/documents'
import type { CobieKnown, CobieStanding } from './known'
import { folded } from './lines'
import type { Line } from './lines'
import type { CobieDocument } from './records'

interface ReadDocument {
  name: string
  standing: CobieStanding
  sentences: string[]
  writes: CobieDocument[]
}

/** What a document is kept with is one thing, or the components of a type: so many at most. */
const MOST_OF_TYPE = 100

/**
 * A document whose file came along is kept with what it is of. @param found what a row of another sheet is here; null when
 * it cannot be taken
 */
export function readDocument(
  line: Line,
  known: Pick<CobieKnown, 'documents' | 'files'>,
  found: (sheet: string, row: string) => { on: 'places' | 'assets'; codes: string[] } | null,
): ReadDocument {
  const title = line.cell('Name').slice(0, 140)
  const as = (standing: CobieStanding, ...sentences: string[]): ReadDocument => ({ name: title, standing, sentences, writes: [] })
  if (!title) return as('bad', 'It has no name.')
  const [sheet, row] = [line.cell('SheetName'), line.cell('RowName')]
  if (known.documents.includes(folded(`${title} ${row}`))) return as('same')
  if (!['facility', 'floor', 'space', 'type', 'component'].includes(folded(sheet)))
    return as('left', `Documents of the sheet ${sheet || '(none)'} are not kept: only those of the building, floors, spaces, types and components.`)
  const of = found(folded(sheet), row)
  if (!of?.codes.length) return as('bad', `There is no ${folded(sheet)} called “${row}” that can be taken.`)
  if (of.codes.length > MOST_OF_TYPE) return as('left', `It would be kept with ${of.codes.length} components. Add it to the vendor or the place they share.`)
  const codes = of.codes.filter((code) => !known.documents.includes(folded(`${title} ${code}`)))
  if (!codes.length) return as('same')
  const file = line.cell('File')
  if (!file) return as('left', 'It names no file.')
  if (!known.files) return as('left', `Its file, ${file}, did not come along: choose a ZIP of the workbook and its files, or add it on the Portrait.`)
  const path = fileAt(known.files, line.cell('Directory'), file)
  if (!path) return as('bad', `There is no ${file} in the ZIP.`)
  const kind = kindIn(line.cell('Category'))
  return {
    name: title,
    standing: 'new',
    sentences: [`${DOCUMENT_KIND_NAMES[kind]} of ${codes.join(', ')}.`],
    writes: codes.map((code) => ({ title, kind, path, on: of.on, code })),
  }
}

/** Where a file lies: as its row says, or where the only one of that name is. */
function fileAt(files: string[], directory: string, file: string): string | undefined {
  const plain = (path: string) =>
    folded(path)
      .replace(/\\/g, '/')
      .replace(/\/+/g, '/')
      .replace(/^(\.?\/)+/, '')
  const told = plain(`${directory}/${file}`)
  const whole = files.find((path) => path === told)
  if (whole) return whole
  const within = told.includes('/') ? files.find((path) => path.endsWith(`/${told}`)) : undefined
  const last = plain(file).split('/').at(-1)!
  const called = files.filter((path) => path.split('/').at(-1) === last)
  return within ?? (called.length === 1 ? called[0] : undefined)
}

const KIND_WORDS: [RegExp, DocumentKind][] = [
  [/warrant|guarant/i, 'warranty'],
  [/manual|instruction|operation|maintenance/i, 'manual'],
  [/certificat|test report|commission/i, 'certificate'],
  [/contract|agreement/i, 'contract'],
  [/drawing|plan|schematic|diagram/i, 'drawing'],
  [/photo|picture|image/i, 'photo'],
]

/** What the category of a document means here; common practice, no source. */
export const kindIn = (category: string): DocumentKind => KIND_WORDS.find(([word]) => word.test(category))?.[1] ?? 'other'
