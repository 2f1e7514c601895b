import { BrowserMultiFormatReader } from '@zxing/browser'
import { BarcodeFormat, DecodeHintType } from '@zxing/library'

/** Ours are QR codes; the others are what makers print on parts (common practice, no source). */
const FORMATS = ['QR_CODE', 'DATA_MATRIX', 'CODE_128', 'CODE_39', 'EAN_13', 'EAN_8', 'ITF'] as const

/** Reads codes from the camera, the one that looks away from whoever holds it, until it is stopped. @throws DOMException where there is no camera, or it may not be used */
export async function readCodes(video: HTMLVideoElement, found: (text: string) => void): Promise<() => void> {
  const reader = new BrowserMultiFormatReader(new Map([[DecodeHintType.POSSIBLE_FORMATS, FORMATS.map((name) => BarcodeFormat[name])]]))
  const controls = await reader.decodeFromConstraints({ video: { facingMode: 'environment' } }, video, (result) => result && found(result.getText()))
  return () => controls.stop()
}
