import { spawnSync } from 'node:child_process'
import { cpSync, readdirSync, readFileSync, renameSync, symlinkSync, writeFileSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import path from 'node:path'
import { ownFolder } from '../kit/folders.mjs'
import { root } from '../kit/tools.mjs'

/**
 * What of the code only somebody who knows its types can say: a promise nobody waits for, an assertion that asserts
 * nothing. Its reader knows no components: they are laid beside it as scripts, each line where it stood.
 */
const folder = await ownFolder('evrix-lint-')
/** A fault laid among the components on purpose: a reader that does not find it reads nothing. */
const PLANTED = 'web/planted.vue.ts'
try {
  layScripts()
  writeFileSync(path.join(folder, PLANTED), 'const late = (): Promise<void> => Promise.resolve()\nlate()\nexport default {}\n')
  const rest = lint(root, 'tsconfig.rest.json', [
    'core',
    'contract',
    'server',
    'standins',
    'demo',
    'tests',
    'scripts/kit',
    'drizzle.config.ts',
    'vite.config.ts',
  ])
  const web = lint(folder, 'tsconfig.web.json', ['web'])
  const found = [...rest, ...web].filter((line) => !line.startsWith(`${PLANTED}:`))
  if (found.length === rest.length + web.length) found.push('The fault that was laid out was not found: nothing can be said of the others.')
  for (const line of found) console.error(line.replace('.vue.ts:', '.vue:'))
  process.exitCode = found.length ? 1 : 0
} finally {
  await rm(folder, { recursive: true, force: true })
}

function layScripts() {
  for (const name of ['core', 'contract', 'tests', 'node_modules']) symlinkSync(path.join(root, name), path.join(folder, name))
  for (const name of ['package.json', 'tsconfig.json', 'tsconfig.web.json']) cpSync(path.join(root, name), path.join(folder, name))
  cpSync(path.join(root, 'web'), path.join(folder, 'web'), { recursive: true, filter: (file) => !/\.(css|woff2?|png|svg)$/.test(file) })
  for (const name of components(path.join(folder, 'web'))) {
    writeFileSync(name, scriptOf(readFileSync(name, 'utf8')))
    renameSync(name, `${name}.ts`)
  }
}

function components(of) {
  return readdirSync(of, { recursive: true })
    .filter((name) => name.endsWith('.vue'))
    .map((name) => path.join(of, name))
}

/** The script of a component on the lines it stands on there; what it exports is a component to whoever looks. */
function scriptOf(text) {
  const found = /<script setup lang="ts"[^>]*>([^]*?)<\/script>/.exec(text)
  const before = text.slice(0, found?.index ?? 0).split('\n').length - 1
  return `${'\n'.repeat(before)}${found?.[1] ?? ''}\nexport default {} as import('vue').DefineComponent\n`
}

/** A line for each finding; what keeps it from reading is one as well. */
function lint(from, project, of) {
  const program = path.join(root, 'node_modules/oxlint/bin/oxlint')
  const args = ['--config', path.join(root, '.oxlintrc.json'), '--type-aware', '--tsconfig', project, '--format', 'unix', ...of]
  const { status, stdout, stderr, error } = spawnSync(program, args, { cwd: from, encoding: 'utf8' })
  const lines = `${stdout}${stderr}`.split('\n').filter((line) => line.trim() && !/^\d+ problems?$/.test(line))
  if (status !== 0 && !lines.length) lines.push(`The linter ended with ${status}: ${error?.message ?? 'it did not say why'}`)
  return lines
}
