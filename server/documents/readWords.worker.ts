import { MOST_WORDS } from '#core/documents'

export interface WordsJob {
  content: Uint8Array
  shows: 'pdf' | 'text'
}

const MOST_PAGES = 200

/** The words inside a PDF or a text, as far as they are searched; null when it cannot be read. Nothing in it is run. */
export default async function readWords({ content, shows }: WordsJob): Promise<string | null> {
  try {
    return (shows === 'text' ? new TextDecoder('utf-8', { fatal: true }).decode(content) : await wordsOfPdf(content)).slice(0, MOST_WORDS)
  } catch {
    return null
  }
}

async function wordsOfPdf(content: Uint8Array): Promise<string> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs')
  const task = getDocument({ data: content, isEvalSupported: false, useSystemFonts: false, disableFontFace: true, verbosity: 0 })
  const pdf = await task.promise
  let words = ''
  for (let page = 1; page <= Math.min(pdf.numPages, MOST_PAGES) && words.length < MOST_WORDS; page++) {
    const { items } = await (await pdf.getPage(page)).getTextContent()
    words += `${items.map((item) => ('str' in item ? `${item.str}${item.hasEOL ? ' ' : ''}` : '')).join('')} `
  }
  await task.destroy()
  return words
}
