import fc from 'fast-check'
import { CODE_KINDS, codeAddress, readCode } from './codes'

test('what a label says is read from its address, whatever stands in the codes', () => {
  expect(codeAddress('https://fm.example', 'SKE', { place: 'PUM-014', asset: 'PMP-03' })).toBe('https://fm.example/c/SKE?place=PUM-014&asset=PMP-03')
  expect(readCode(' https://fm.example/c/SKE?place=PUM-014&asset=PMP-03 ')).toEqual({ kind: 'asset', code: 'PMP-03', site: 'SKE' })
  fc.assert(
    fc.property(fc.constantFrom(...CODE_KINDS), fc.string({ minLength: 1, unit: 'grapheme' }), fc.stringMatching(/^[A-Z]{1,8}$/), (kind, code, site) => {
      expect(readCode(codeAddress('https://fm.example', site, { [kind]: code }))).toEqual({ kind, code, site })
    }),
  )
})

test('anything else is a code as it stands: typed, from the maker, or from somebody else’s address', () => {
  for (const text of ['EL-101', '4006381333931', 'https://elsewhere.example/p/12', 'https://fm.example/c/SKE', 'http://', 'ftp://fm.example/c/SKE?part=1'])
    expect(readCode(text)).toEqual({ kind: null, code: text, site: null })
  expect(readCode('  el-101\n')).toMatchObject({ code: 'el-101' })
})
