import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'

const WRITES = new Set(['insert', 'update', 'delete'])
/** What writes in plain SQL, up to the name of the table. */
const WRITES_SQL = /\b(?:insert\s+(?:ignore\s+)?into|replace\s+into|update|delete\s+from)\s*`?$/i

const read = new Map()

/** Which room each table belongs to: the file of `server/tables` it stands in. Read once for all files of a run. */
export function tableOwners(folder) {
  if (read.has(folder)) return read.get(folder)
  const owners = new Map()
  read.set(folder, owners)
  for (const file of readdirSync(folder))
    for (const [, table] of readFileSync(path.join(folder, file), 'utf8').matchAll(/^export const (\w+) = mysqlTable\b/gm))
      owners.set(table, path.basename(file, '.ts'))
  return owners
}

/** Only the room that a table belongs to writes it; others call what that room offers in its `records.ts`. */
export const ownTables = {
  meta: {
    type: 'problem',
    docs: { description: 'A table is written by its own room only.' },
    schema: [{ type: 'object', properties: { folder: { type: 'string' } }, required: ['folder'], additionalProperties: false }],
    messages: { foreign: '`{{table}}` belongs to {{owner}}, and {{room}} writes it. Call what server/{{owner}} offers in records.ts.' },
  },
  create(context) {
    const room = /\/server\/(\w+)\//.exec(context.filename.replaceAll('\\', '/'))?.[1]
    if (!room) return {}
    const owners = tableOwners(context.options[0].folder)
    const check = (node, table) => {
      const owner = owners.get(table)
      if (owner && owner !== room) context.report({ node, messageId: 'foreign', data: { table, owner, room } })
    }
    return {
      CallExpression(node) {
        const { callee } = node
        const [argument] = node.arguments
        if (callee.type === 'MemberExpression' && WRITES.has(callee.property.name) && argument?.type === 'Identifier') check(argument, argument.name)
      },
      'TaggedTemplateExpression[tag.name="sql"]'({ quasi }) {
        for (const [index, expression] of quasi.expressions.entries())
          if (expression.type === 'Identifier' && WRITES_SQL.test(quasi.quasis[index].value.raw.trimEnd())) check(expression, expression.name)
      },
    }
  },
}
