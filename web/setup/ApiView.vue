<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { readOpenApi } from '#contract/setup'
import { TextEntry, call, ProblemNote, useLoading } from '#web/kit'

interface Operation {
  operationId: string
  summary: string
  'x-permission': string
  parameters: { name: string; in: string; required: boolean; schema?: { type?: string } }[]
  responses: { 200: { content: Record<string, { schema?: { $ref?: string; properties?: Record<string, unknown> } }> } }
  requestBody?: { content: Record<string, { schema: { properties?: Record<string, { type?: string; enum?: unknown[] }>; required?: string[] } }> }
}
const api = useLoading(() => call(readOpenApi, {}) as Promise<{ paths: Record<string, Record<string, Operation>> }>)
void api.load()
const q = ref('')
const all = computed(() =>
  Object.entries(api.value.value?.paths ?? {}).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({
      key: `${method} ${path}`,
      path,
      method: method.toUpperCase(),
      operation,
      answer: answerOf(operation),
      body: Object.values(operation.requestBody?.content ?? {})[0]?.schema,
    })),
  ),
)
/** The name of what comes back, or its fields, or its media type when it is a file. */
function answerOf(operation: Operation): string {
  const [type, { schema }] = Object.entries(operation.responses[200].content)[0]!
  if (!schema) return type
  return schema.$ref?.split('/').at(-1) ?? Object.keys(schema.properties ?? {}).join(', ')
}
/** What was opened: only that is drawn, since all of it is a hundred thousand nodes. */
const opened = ref(new Set<string>())
function noteOpened(key: string, happened: Event): void {
  if ((happened.target as HTMLDetailsElement).open) opened.value.add(key)
}
const shown = computed(() => all.value.filter((one) => `${one.method} ${one.path} ${one.operation.summary}`.toLowerCase().includes(q.value.toLowerCase())))
</script>

<template>
  <div class="page">
    <header>
      <h1>API</h1>
      <TextEntry id="api-q" v-model="q" kind="search" label-hidden label="Find" placeholder="Find an endpoint" />
      <NButton tag="a" href="/api/openapi.json">OpenAPI 3.1 document</NButton>
    </header>
    <ProblemNote v-if="api.problem.value" :problem="api.problem.value" @retry="api.load" />
    <section v-else aria-label="Endpoints">
      <p class="soft">
        Every POST carries an Idempotency-Key header; every edit carries the version it was made from; failures are problem details (RFC 9457).
      </p>
      <details v-for="one in shown" :key="one.key" @toggle="noteOpened(one.key, $event)">
        <summary>
          <span class="mono method">{{ one.method }}</span> <span class="mono">{{ one.path }}</span> <span class="soft">{{ one.operation.summary }}</span>
        </summary>
        <p v-if="opened.has(one.key)">
          Who may: {{ one.operation['x-permission'] }}. Answers: <span class="mono">{{ one.answer }}</span>
        </p>
        <table v-if="opened.has(one.key)" class="plain-table">
          <tbody>
            <tr v-for="parameter in one.operation.parameters" :key="parameter.in + parameter.name">
              <td class="mono">{{ parameter.name }}</td>
              <td>{{ parameter.in }}</td>
              <td>{{ parameter.schema?.type }}</td>
              <td>{{ parameter.required ? 'needed' : '' }}</td>
            </tr>
            <tr v-for="(schema, name) in one.body?.properties ?? {}" :key="name">
              <td class="mono">{{ name }}</td>
              <td>body</td>
              <td>{{ schema.enum?.join(' | ') ?? schema.type }}</td>
              <td>{{ one.body?.required?.includes(String(name)) ? 'needed' : '' }}</td>
            </tr>
          </tbody>
        </table>
      </details>
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.method {
  display: inline-block;
  width: 64px;
}
summary {
  padding: 6px 0;
  cursor: pointer;
}
</style>
