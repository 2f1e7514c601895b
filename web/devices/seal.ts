/** Something only this device reads, and only while it has its key. */
export interface Sealed {
  iv: Uint8Array<ArrayBuffer>
  content: ArrayBuffer
}

const IV_BYTES = 12

/** What a device keeps is sealed with AES-GCM (NIST SP 800-38D), each time with 96 fresh random bits; the key cannot be read out of the browser. */
export class Seal {
  private constructor(readonly key: CryptoKey) {}

  /** @param hex 256 bits, as the server hands them out */
  static async of(hex: string): Promise<Seal> {
    const bytes = Uint8Array.from(hex.match(/../g)!, (pair) => parseInt(pair, 16))
    return new Seal(await crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt']))
  }

  static withKey = (key: CryptoKey): Seal => new Seal(key)

  async closeBytes(content: ArrayBuffer): Promise<Sealed> {
    const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES))
    return { iv, content: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, this.key, content) }
  }

  /** @throws DOMException when it was sealed with another key, or changed since */
  openBytes = ({ iv, content }: Sealed): Promise<ArrayBuffer> => crypto.subtle.decrypt({ name: 'AES-GCM', iv }, this.key, content)

  close = (value: unknown): Promise<Sealed> => this.closeBytes(new TextEncoder().encode(JSON.stringify(value)).buffer)

  /** @throws DOMException as above */
  open = async <T>(sealed: Sealed): Promise<T> => JSON.parse(new TextDecoder().decode(await this.openBytes(sealed))) as T
}
