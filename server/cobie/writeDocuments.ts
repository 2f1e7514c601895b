import type { CobieWrites } from '#core/cobie'
import { keepDocument, readDocumentSent } from '#server/documents'
import { naming } from './writeRecords'
import type { Taking, WrittenIds } from './writeRecords'

/** Files that came along with a workbook, each kept once, with all it is of. Nobody outside the desk is shown them until somebody says so. */
export async function writeDocuments(
  taking: Taking,
  siteId: number,
  documents: CobieWrites['documents'],
  ids: WrittenIds,
  files: Record<string, Uint8Array>,
): Promise<void> {
  for (const path of new Set(documents.map((one) => one.path))) {
    const name = path.split('/').at(-1)!
    const file = await naming(name, () => readDocumentSent({ buffer: Buffer.from(files[path]!), originalname: name, mimetype: '' }, undefined))
    let kept: number | undefined
    for (const { on, code, title, kind } of documents.filter((one) => one.path === path)) {
      const of = { on, id: ids[on].get(code)!, siteId }
      ;({ storedId: kept } = await keepDocument(taking, of, { kind, title, validFrom: null, validUntil: null, remindDays: null, audience: [] }, file, kept))
    }
  }
}
