declare module 'http_ece' {
  import type { ECDH } from 'node:crypto'
  /** Opens what was sealed by RFC 8188 with keys of RFC 8291. */
  function decrypt(sealed: Buffer, how: { version: 'aes128gcm'; privateKey: ECDH; authSecret: string }): Buffer
  export default { decrypt }
}
