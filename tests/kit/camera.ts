import { writeFileSync } from 'node:fs'
import path from 'node:path'
import QRCode from 'qrcode'

const [WIDTH, HEIGHT] = [640, 480]
const [PAPER, INK] = [235, 16]

/** A film a camera can play (YUV4MPEG2, luma as of ITU-R BT.601): somebody holds a code in front of it. @returns its file */
export function filmOf(folder: string, text: string): string {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' })
  const quiet = 4
  const step = Math.floor((HEIGHT * 0.8) / (modules.size + 2 * quiet))
  const [left, top] = [WIDTH, HEIGHT].map((side) => Math.round((side - step * modules.size) / 2)) as [number, number]
  const luma = Buffer.alloc(WIDTH * HEIGHT, PAPER)
  for (let row = 0; row < modules.size * step; row++)
    for (let column = 0; column < modules.size * step; column++)
      if (modules.get(Math.floor(row / step), Math.floor(column / step))) luma[(top + row) * WIDTH + left + column] = INK
  const frame = Buffer.concat([Buffer.from('FRAME\n'), luma, Buffer.alloc((WIDTH * HEIGHT) / 2, 128)])
  const file = path.join(folder, `film-${text.replace(/\W+/g, '-').slice(-40)}.y4m`)
  writeFileSync(file, Buffer.concat([Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F5:1 Ip A1:1 C420jpeg\n`), ...Array<Buffer>(5).fill(frame)]))
  return file
}

/** What a browser is started with, so that its camera plays this film and may be used. */
export const cameraPlaying = (film: string): string[] => [
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  `--use-file-for-fake-video-capture=${film}`,
]
