import { unzipSync } from 'fflate'

const MOST_FILES = 2_000
/** Unpacked, in bytes: each by itself, and all that is taken. */
const MOST_FILE = 15 * 1024 * 1024
const MOST_ALL = 60 * 1024 * 1024

const placed = (name: string) => name.toLowerCase().replace(/\\/g, '/')
/** What some systems put into every archive beside what was asked for. */
const isDebris = (path: string) => path.endsWith('/') || path.startsWith('__macosx/') || path.split('/').at(-1)!.startsWith('.')

/**
 * A workbook as it is, or the one in a ZIP with what came along: paths in lower case, with / between; null for a workbook
 * that came alone. What is no archive at all is for the reader of workbooks to refuse.
 */
export function unpacked(content: Uint8Array): { workbook: Uint8Array; files: string[] | null } | { wrong: string } {
  const names: { name: string; size: number }[] = []
  try {
    unzipSync(content, {
      filter: ({ name, originalSize }) => {
        names.push({ name, size: originalSize })
        return false
      },
    })
  } catch {
    return { workbook: content, files: null }
  }
  if (names.some(({ name }) => name === 'xl/workbook.xml')) return { workbook: content, files: null }
  const kept = names.filter(({ name }) => !isDebris(placed(name)))
  if (kept.length > MOST_FILES) return { wrong: `The ZIP holds ${kept.length} files. Take in at most ${MOST_FILES} at a time.` }
  const books = kept.filter(({ name }) => /\.xlsx$/i.test(name))
  const top = books.filter(({ name }) => !/[\\/]/.test(name))
  const book = books.length === 1 ? books[0] : top.length === 1 ? top[0] : undefined
  if (!book) return { wrong: books.length ? `The ZIP holds ${books.length} workbooks. Leave one at its top.` : 'There is no workbook (XLSX) in the ZIP.' }
  if (book.size > MOST_ALL) return { wrong: 'The workbook in the ZIP is too large. Take it in by floors.' }
  const found = unzipSync(content, { filter: ({ name }) => name === book.name })
  return {
    workbook: found[book.name]!,
    files: kept.filter((one) => one !== book && one.size > 0 && one.size <= MOST_FILE).map(({ name }) => placed(name)),
  }
}

/** These files of a ZIP. @throws RangeError when they are more than is taken at once */
export function filesOf(content: Uint8Array, paths: Set<string>): Record<string, Uint8Array> {
  if (!paths.size) return {}
  let all = 0
  const found = unzipSync(content, {
    filter: ({ name, originalSize }) => {
      const wanted = paths.has(placed(name))
      if (wanted && (all += originalSize) > MOST_ALL) throw new RangeError('too much at once')
      return wanted
    },
  })
  return Object.fromEntries(Object.entries(found).map(([name, file]) => [placed(name), file]))
}
