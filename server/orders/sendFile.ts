import type { Response } from 'express'
import type { attachments } from '../tables'

type Kept = typeof attachments.$inferSelect

/** Sends a kept file so that no browser can take it for anything else: pictures are shown, documents only downloaded. */
export function sendFile(response: Response, file: Kept, small = false): void {
  response.setHeader('Content-Type', file.kind === 'picture' ? file.mime : 'application/octet-stream')
  response.setHeader('X-Content-Type-Options', 'nosniff')
  response.setHeader('Content-Security-Policy', "default-src 'none'; sandbox")
  response.setHeader('Cache-Control', 'private, max-age=3600')
  if (file.kind === 'document') response.attachment(file.name).type('application/octet-stream')
  response.end(small && file.thumb ? file.thumb : file.content)
}
