import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { createGenerator } from 'ts-json-schema-generator'
import ts from 'typescript'
import { root } from './kit/tools.mjs'

/**
 * Writes what every endpoint answers as JSON Schema, from its TypeScript types, for the OpenAPI
 * document. With --check it writes nothing and fails when the committed file is behind the types.
 */
const FILE = path.join(root, 'server/setup/answers.json')
const copies = path.join(root, 'dist/answers')
mkdirSync(copies, { recursive: true })
try {
  const schema = JSON.stringify(answersSchema(), null, 1) + '\n'
  if (!process.argv.includes('--check')) writeFileSync(FILE, schema)
  else if (readFileSync(FILE, 'utf8') !== schema) {
    console.error('server/setup/answers.json is behind the contract: run “npm run answers” and commit it.')
    process.exitCode = 1
  }
} finally {
  rmSync(copies, { recursive: true, force: true })
}

function answersSchema() {
  const files = readdirSync(path.join(root, 'contract'), { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && entry.name !== 'kit')
    .flatMap((room) => readdirSync(path.join(root, 'contract', room.name)).map((name) => ({ room: room.name, name: path.basename(name, '.ts') })))
    .sort((a, b) => `${a.room} ${a.name}`.localeCompare(`${b.room} ${b.name}`))
  const place = ({ room, name }) => path.join(root, 'contract', room, `${name}.ts`)
  const { config } = ts.readConfigFile(path.join(root, 'tsconfig.json'), ts.sys.readFile)
  const program = ts.createProgram(files.map(place), ts.convertCompilerOptionsFromJson(config.compilerOptions, root).options)
  const withAnswers = files.filter((file) => {
    const answers = Object.entries(answersOf(program, place(file))).map(([name, type]) => `  ${name}: ${type}`)
    // Beside a copy of the file's own text every type is in scope, also those it does not export.
    mkdirSync(path.join(copies, file.room), { recursive: true })
    const copy = `${readFileSync(place(file), 'utf8')}\nexport interface AnswersOf_${file.room}_${file.name} {\n${answers.join('\n')}\n}\n`
    writeFileSync(path.join(copies, file.room, `${file.name}.ts`), copy)
    return answers.length > 0
  })
  const generator = createGenerator({
    path: path.join(copies, '**/*.ts'),
    tsconfig: path.join(root, 'tsconfig.json'),
    skipTypeCheck: true,
    topRef: false,
    additionalProperties: true,
  })
  const made = withAnswers.map(({ room, name }) => generator.createSchema(`AnswersOf_${room}_${name}`))
  const definitions = Object.assign({}, ...made.map((one) => one.definitions))
  const endpoints = Object.assign({}, ...made.map((one) => one.properties))
  // A component of OpenAPI is named with letters, digits and a few signs; generics are not.
  const plain = (name) =>
    decodeURIComponent(name)
      .replace(/[^A-Za-z0-9_]+/g, '_')
      .replace(/_$/, '')
  return JSON.parse(
    JSON.stringify({ endpoints, definitions: Object.fromEntries(Object.entries(definitions).map(([name, one]) => [plain(name), one])) }).replace(
      /"#\/definitions\/([^"]+)"/g,
      (_, name) => `"#/components/schemas/${plain(name)}"`,
    ),
  )
}

/** The answer type of every endpoint of a room that answers JSON, as TypeScript writes it. */
function answersOf(program, file) {
  const checker = program.getTypeChecker()
  const answers = {}
  for (const statement of program.getSourceFile(file).statements) {
    if (!ts.isVariableStatement(statement) || !statement.modifiers?.some((one) => one.kind === ts.SyntaxKind.ExportKeyword)) continue
    for (const declaration of statement.declarationList.declarations) {
      const type = checker.getTypeAtLocation(declaration)
      if ((type.aliasSymbol ?? type.symbol)?.name !== 'Endpoint') continue
      const answer = checker.getTypeArguments(type)[1]
      const text = checker.typeToString(answer, declaration, ts.TypeFormatFlags.NoTruncation)
      if (text !== 'Blob') answers[declaration.name.text] = text
    }
  }
  return answers
}
