import type { Response } from 'express'
import type { attachments } from '../tables'

/** Sends a kept picture so that no browser can take it for anything else. */
export function sendPicture(response: Response, file: typeof attachments.$inferSelect): void {
  response.setHeader('Content-Type', file.mime)
  response.setHeader('X-Content-Type-Options', 'nosniff')
  response.setHeader('Content-Security-Policy', "default-src 'none'; sandbox")
  response.setHeader('Cache-Control', 'private, max-age=3600')
  response.end(file.content)
}
