import { createHash, createHmac, randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'

/** 256 random bits, safe in an address. */
export const randomToken = () => randomBytes(32).toString('base64url')

export const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')

/** Makes and remakes the tokens of private links; the database keeps only nonce and hash. */
export interface LinkMaker {
  fresh(purpose: LinkPurpose): { token: string; nonce: string; hash: string }
  again(purpose: LinkPurpose, nonce: string): string
  /** 256 bits that are this installation’s for a purpose. */
  key(purpose: 'push'): Buffer
  /** A short proof that we wrote this text, for addresses and message ids. */
  sign(text: string): string
}

export type LinkPurpose = 'request' | 'pass' | 'follow' | 'mine' | 'approval' | 'times' | 'quote' | 'feed'

/**
 * Tokens are an HMAC of a random nonce under the installation's secret: they cannot be guessed, nor
 * made from the database alone, and a later mail can carry the same link again.
 */
export function makeLinks(secret: string): LinkMaker {
  const again = (purpose: LinkPurpose, nonce: string) => createHmac('sha256', secret).update(`${purpose}:${nonce}`).digest('base64url')
  return {
    again,
    key: (purpose) => createHmac('sha256', secret).update(`key:${purpose}`).digest(),
    sign: (text) => createHmac('sha256', secret).update(`sign:${text}`).digest('base64url').slice(0, SIGNATURE_LENGTH),
    fresh(purpose) {
      const nonce = randomBytes(16).toString('hex')
      const token = again(purpose, nonce)
      return { token, nonce, hash: sha256(token) }
    },
  }
}

const SIGNATURE_LENGTH = 22

/** The installation's secret, made once and kept in the data folder. */
export function readSecret(dataDir: string): string {
  const file = path.join(dataDir, 'secret')
  if (!existsSync(file)) writeFileSync(file, randomToken(), { mode: 0o600 })
  return readFileSync(file, 'utf8')
}
