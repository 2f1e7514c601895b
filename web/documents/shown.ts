import type { DocumentFile } from '#contract/documents'

/** A file that can be looked at without leaving. */
export interface ShownFile {
  title: string
  name: string
  shows: DocumentFile['shows']
  url: string
  /** Where it is read from, when it may lie on the device. */
  content?: () => Promise<Blob>
}

/** "1.2 MB", "340 kB": decimal, as file systems say it. */
export function sizeSays(bytes: number): string {
  if (bytes < 1_000) return `${bytes} B`
  return bytes < 1_000_000 ? `${Math.round(bytes / 1_000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
}
