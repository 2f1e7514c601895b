import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { readConfig } from './config'

const folder = mkdtempSync(path.join(tmpdir(), 'evrix-config-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const read = (env: NodeJS.ProcessEnv) => readConfig({ EVRIX_DATA_DIR: folder, EVRIX_DATABASE_URL: 'mysql://root@127.0.0.1/evrix', ...env }, folder)

test('unset, it listens to this machine alone, trusts no proxy and has limits', () => {
  expect(read({})).toMatchObject({
    host: '127.0.0.1',
    port: 0,
    trustedProxies: [],
    publicUrl: null,
    now: null,
    inboundPort: null,
    publicPerMinute: 120,
    publicReadsPerMinute: 3_000,
  })
})

test('each setting says its own thing; reading has a limit that grows with sending’s unless it is set', () => {
  const config = read({ HOST: '0.0.0.0', PORT: '4711', EVRIX_TRUSTED_PROXIES: 'loopback, 10.1.0.0/16', EVRIX_PUBLIC_URL: 'https://help.place.example/' })
  expect(config).toMatchObject({ host: '0.0.0.0', port: 4711, trustedProxies: ['loopback', '10.1.0.0/16'], publicUrl: 'https://help.place.example' })
  expect(read({ EVRIX_PUBLIC_PER_MINUTE: '10' })).toMatchObject({ publicPerMinute: 10, publicReadsPerMinute: 250 })
  expect(read({ EVRIX_PUBLIC_READS_PER_MINUTE: '7' })).toMatchObject({ publicPerMinute: 120, publicReadsPerMinute: 7 })
})

test.each([
  [{ EVRIX_NOW: 'tomorrow' }, 'EVRIX_NOW is not an instant'],
  [{ EVRIX_PUBLIC_URL: 'help.place.example' }, 'EVRIX_PUBLIC_URL is not an address'],
  [{ EVRIX_PUBLIC_URL: 'ftp://place.example' }, 'EVRIX_PUBLIC_URL is not an address'],
  [{ EVRIX_DATABASE_URL: '' }, 'EVRIX_DATABASE_URL is not set'],
])('%j is refused in words', (env, sentence) => expect(() => read(env)).toThrow(sentence))
