import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import path from 'node:path'
import { promisify } from 'node:util'
import { deserialize } from 'node:v8'
import { build } from 'esbuild'

/** A program bundled as the application is, in processes of its own. */
export interface Apart {
  /** What it answers to this; several can run at once. */
  run: <Answer>(...given: string[]) => Promise<Answer>
  end: () => void
}

/**
 * Makes a program of TypeScript that defines \`run\`. Through the runner, which looks up every global name by itself,
 * arithmetic takes several times as long.
 * @param folder from which it imports
 */
export async function apart(folder: string, source: string): Promise<Apart> {
  // Where packages are found from.
  const place = mkdtempSync(path.resolve(__dirname, '../../node_modules/.apart-'))
  const program = path.join(place, 'program.mjs')
  const contents = `import { writeFileSync as writeAnswer } from 'node:fs'
    import { serialize } from 'node:v8'
    ${source}
    const [, , answerFile, ...given] = process.argv as [string, string, string, ...string[]]
    void Promise.resolve((run as (...given: string[]) => unknown)(...given)).then((answer) => writeAnswer(answerFile, serialize(answer)))`
  await build({
    stdin: { contents, resolveDir: folder, loader: 'ts' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    outfile: program,
    logLevel: 'warning',
  })
  let asked = 0
  return {
    run: async <Answer>(...given: string[]) => {
      const file = path.join(place, `${asked++}.answer`)
      await promisify(execFile)(process.execPath, [program, file, ...given])
      return deserialize(readFileSync(file)) as Answer
    },
    end: () => rmSync(place, { recursive: true, force: true }),
  }
}
