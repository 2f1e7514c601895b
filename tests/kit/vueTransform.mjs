import { transformSync } from '@swc/core'
import { compileScript, parse } from 'vue/compiler-sfc'

/** Lets jest read a component as the build does: Vue's own compiler, then swc. Styles are left out. */
export default {
  process(source, filename) {
    const { descriptor, errors } = parse(/<script\b/.test(source) ? source : `${source}\n<script setup lang="ts">/* none */</script>`, { filename })
    if (errors.length) throw errors[0]
    const { content } = compileScript(descriptor, { id: filename.replace(/\W/g, ''), inlineTemplate: true })
    return transformSync(content, {
      filename,
      sourceMaps: 'inline',
      jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
      module: { type: 'commonjs' },
    })
  },
}
