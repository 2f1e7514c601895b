import { existsSync, renameSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import path from 'node:path'
import { pathToFileURL } from 'node:url'

/**
 * A process that runs one server of the tests after another, each with settings of its own: starting a process and warming
 * it up takes more than most suites do with it. What starts it is told where it listens; "serve" answers where the server
 * is, "stop" once it has ended. Then it waits on the shelf for the next suite.
 */
const { serve } = await import(pathToFileURL(path.join(process.cwd(), 'dist/server/serve.js')).href)
const shelf = process.env.EVRIX_TEST_SERVERS
/** What a server left behind shows itself while nobody has it. */
const REST_MS = 500
/** Longest a server may take to end, as in its own process. */
const MOST_MS = 10_000
let served = null
/** Where it served before: browsers that were there have what it serves already, and made ready to run. */
let port = '0'

const isFree = (one) =>
  new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .listen(Number(one), '127.0.0.1', () => probe.close(() => resolve(true)))
  })

const TASKS = {
  '/serve': async (env) => {
    // A server that came back to its address in another process may have it.
    served = await serve(env.PORT === '0' ? { ...env, PORT: (await isFree(port)) ? port : '0' } : env)
    if (env.PORT === '0') port = new URL(served.address).port
    return { address: served.address }
  },
  '/stop': async () => {
    const late = setTimeout(() => process.exit(1), MOST_MS)
    await served.stop()
    clearTimeout(late)
    served = null
    setTimeout(() => {
      // All tests are done.
      if (!existsSync(shelf)) process.exit(0)
      // Written beside and moved: nobody reads half a file.
      const ready = path.join(shelf, '..', `${process.pid}.json`)
      writeFileSync(ready, JSON.stringify({ control, pid: process.pid }))
      renameSync(ready, path.join(shelf, `${process.pid}.json`))
    }, REST_MS)
    return {}
  },
}

const control = await new Promise((resolve) => {
  const door = createServer((request, response) => {
    let body = ''
    request.on('data', (part) => (body += part))
    request.on('end', () => {
      TASKS[request.url](body && JSON.parse(body)).then(
        (answer) => response.end(JSON.stringify(answer)),
        (error) => response.writeHead(500).end(error.stack),
      )
    })
  })
  door.listen(0, '127.0.0.1', () => resolve(`http://127.0.0.1:${door.address().port}`))
})
process.stdout.write(`listening ${control}\n`)
process.once('SIGTERM', () => process.exit(0))
// Whoever started it is gone: nothing is left running.
process.once('disconnect', () => process.exit(0))
