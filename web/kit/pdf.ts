import type { PDFDocumentProxy } from 'pdfjs-dist'

export type Pdf = PDFDocumentProxy

/** Opens a PDF; its reader comes with the first one that is opened. @throws when it is none, is damaged or asks for a password */
export async function openPdf(content: ArrayBuffer): Promise<Pdf> {
  const [{ getDocument, GlobalWorkerOptions }, { default: workerSrc }] = await Promise.all([
    import('pdfjs-dist'),
    import('pdfjs-dist/build/pdf.worker.min.mjs?url'),
  ])
  GlobalWorkerOptions.workerSrc = workerSrc
  // Nothing in a document runs, and nothing is fetched for it.
  return getDocument({ data: content, isEvalSupported: false, enableXfa: false }).promise
}

/** Draws a page as wide as asked, in pixels. @param page from 1 */
export async function drawPage(pdf: Pdf, page: number, canvas: HTMLCanvasElement, width: number): Promise<void> {
  const one = await pdf.getPage(page)
  const viewport = one.getViewport({ scale: width / one.getViewport({ scale: 1 }).width })
  canvas.width = Math.round(viewport.width)
  canvas.height = Math.round(viewport.height)
  await one.render({ canvas, viewport, background: '#ffffff' }).promise
}

/** A page as a picture. */
export async function pictureOfPage(pdf: Pdf, page: number, width: number): Promise<Blob> {
  const canvas = document.createElement('canvas')
  await drawPage(pdf, page, canvas, width)
  return new Promise((made, failed) => canvas.toBlob((blob) => (blob ? made(blob) : failed(new Error('The page could not be drawn.'))), 'image/png'))
}
