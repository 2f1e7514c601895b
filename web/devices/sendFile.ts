import type { DetailedError } from 'tus-js-client'
import type { Problem } from '#contract/kit'
import { CallProblem } from '#web/kit'

const UPLOADS = '/api/uploads'
/** What a line that breaks can lose; a whole piece counts as soon as it is there. */
const PIECE_BYTES = 512 * 1024
/** A line over which nothing goes for so long is none (our own choice, no source). */
const STILL_MS = 45_000

/**
 * Sends a file by the resumable upload protocol, from where it broke off.
 *
 * @param url of the upload as far as it has come; without one, it begins
 * @param began keeps the address, so that it goes on there whatever happens to the page
 * @returns by what name the server has it
 * @throws CallProblem
 */
export async function sendFile(file: Blob, url: string | undefined, began: (url: string) => Promise<void>): Promise<string> {
  const { Upload } = await import('tus-js-client')
  return new Promise((resolve, reject) => {
    let still: ReturnType<typeof setTimeout>
    const moves = () => {
      clearTimeout(still)
      still = setTimeout(() => void upload.abort().finally(() => reject(new CallProblem(NO_LINE))), STILL_MS)
    }
    const upload = new Upload(file, {
      endpoint: UPLOADS,
      uploadUrl: url,
      chunkSize: PIECE_BYTES,
      // Whoever sends tries again, in its own time.
      retryDelays: [],
      storeFingerprintForResuming: false,
      onUploadUrlAvailable: () => void began(upload.url!),
      onProgress: moves,
      onSuccess: () => {
        clearTimeout(still)
        resolve(upload.url!.slice(upload.url!.lastIndexOf('/') + 1))
      },
      onError: (error) => {
        clearTimeout(still)
        reject(new CallProblem(problemOf(error as DetailedError)))
      },
    })
    moves()
    upload.start()
  })
}

const NO_LINE: Problem = { type: 'about:blank', title: 'No connection', status: 0, detail: 'The line stands still. The photo is kept on this phone.' }

function problemOf({ originalResponse, message }: DetailedError): Problem {
  const status = originalResponse?.getStatus() ?? 0
  // Another sender of the same file was quicker, or still is: it is looked at again where it stands.
  if (status === 409 || status === 423) return { type: 'about:blank', title: 'Not yet', status: 503, detail: message }
  return { type: 'about:blank', title: 'The photo was not taken', status, detail: 'The photo could not be sent. It is kept on this phone.' }
}
