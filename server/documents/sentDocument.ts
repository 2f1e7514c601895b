import type { DocumentFile } from '#contract/documents'
import { inThread, readFileSent } from '#server/kit'
import type { KeptContent, SentFile } from '#server/kit'
import type { WordsJob } from './readWords.worker'

/** A hostile file may cost this worker its heap and this much time; the server goes on, and the document is kept without its words. */
const MOST_HEAP_MB = 256
const MOST_MS = 20_000
const readWords = inThread<WordsJob, string | null>('readWords.worker', { mostHeapMb: MOST_HEAP_MB })

/** A file of a document ready to be kept: a picture written anew, anything else as it came, with the words inside. */
export interface SentDocument extends KeptContent {
  shows: DocumentFile['shows']
  inside: string | null
}

/** @throws Refusal at field "file" when there is none, it is empty, or what calls itself a picture is not one */
export async function readDocumentSent(sent: SentFile | undefined, givenName: string | undefined): Promise<SentDocument> {
  const file = await readFileSent(sent, givenName)
  const shows = file.kind === 'picture' ? 'picture' : file.mime === 'application/pdf' ? 'pdf' : isText(file) ? 'text' : 'nothing'
  const mime = shows === 'text' ? 'text/plain' : file.mime
  const inside = shows === 'pdf' || shows === 'text' ? await wordsOf({ content: new Uint8Array(file.content), shows }) : null
  return { ...file, mime, shows, inside }
}

async function wordsOf(job: WordsJob): Promise<string | null> {
  let late: NodeJS.Timeout | undefined
  const tooLong = new Promise<null>((give) => (late = setTimeout(() => give(null), MOST_MS)))
  return Promise.race([readWords(job).catch(() => null), tooLong]).finally(() => clearTimeout(late))
}

/** Nothing that a program would call binary: UTF-8 without control characters, by a name that says so. */
function isText({ name, content, mime }: KeptContent): boolean {
  if (mime !== 'application/octet-stream' || !/\.(txt|md|csv|log|json|geojson)$/i.test(name)) return false
  try {
    const start = new TextDecoder('utf-8', { fatal: true }).decode(content.subarray(0, 4_000), { stream: true })
    // eslint-disable-next-line no-control-regex -- these are what is looked for
    return !/[\u0000-\u0008\u000E-\u001F]/.test(start)
  } catch {
    return false
  }
}
