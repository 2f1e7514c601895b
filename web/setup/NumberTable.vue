<script setup lang="ts">
import { editNumbering, readNumbering } from '#contract/setup'
import { SERIES_NAMES } from '#core/kit'
import { call, LoadedPart, NumberField, useKept } from '#web/kit'

/** Where the numbers of every series have got to. */
const { shown, keep } = useKept(() => call(readNumbering, {}))
</script>

<template>
  <section aria-label="Numbers">
    <h2>Next numbers</h2>
    <LoadedPart v-slot="{ value }" :part="shown">
      <table class="plain-table">
        <thead>
          <tr>
            <th>Site</th>
            <th>Series</th>
            <th>Next</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in value.numberings" :key="row.siteId + row.series">
            <td class="mono">{{ row.siteCode }}</td>
            <td>
              {{ SERIES_NAMES[row.series] }} <span class="mono soft">{{ row.prefix }}-</span>
            </td>
            <td>
              <NumberField
                :value="row.next"
                :least="1"
                :name="`Next ${row.series} number at ${row.siteCode}`"
                :keep="(next) => keep(() => call(editNumbering, { siteId: row.siteId, series: row.series, next }), 'The next number is set.')"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </LoadedPart>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
td {
  vertical-align: middle;
}
</style>
