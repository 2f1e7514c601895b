<script setup lang="ts">
import { editNumbering, readNumbering } from '#contract/setup'
import type { NumberingEdit, NumberingSheet } from '#contract/setup'
import { formatNumber, MOST_DIGITS, MOST_PREFIX, SERIES_NAMES } from '#core/kit'
import { call, KeptText, LoadedPart, NumberField, useKept } from '#web/kit'

/** How the numbers of every series are written, and where they have got to. */
type Row = NumberingSheet['numberings'][number]
const { shown, keep } = useKept(() => call(readNumbering, {}))
const change = (row: Row, to: Omit<NumberingEdit, 'siteId' | 'series'>) =>
  keep(() => call(editNumbering, { siteId: row.siteId, series: row.series, ...to }), 'Numbers go on like this.')
</script>

<template>
  <section aria-label="Numbers">
    <h2>Numbers</h2>
    <p class="soft">What moves over from another system goes on where that one ended. Numbers that were given stay as they are.</p>
    <LoadedPart v-slot="{ value }" :part="shown">
      <table class="plain-table">
        <thead>
          <tr>
            <th>Site</th>
            <th>Series</th>
            <th>Begins with</th>
            <th>Digits</th>
            <th>Next</th>
            <th>The next one</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in value.numberings" :key="row.siteId + row.series">
            <td class="mono">{{ row.siteCode }}</td>
            <td>{{ SERIES_NAMES[row.series] }}</td>
            <td>
              <KeptText
                :value="row.prefix"
                :most="MOST_PREFIX"
                :name="`What ${row.series} numbers begin with at ${row.siteCode}`"
                :keep="(prefix) => change(row, { prefix })"
              />
            </td>
            <td>
              <NumberField
                :value="row.digits"
                :least="1"
                :most="MOST_DIGITS"
                :name="`Digits of ${row.series} numbers at ${row.siteCode}`"
                :keep="(digits) => change(row, { digits })"
              />
            </td>
            <td>
              <NumberField :value="row.next" :least="1" :name="`Next ${row.series} number at ${row.siteCode}`" :keep="(next) => change(row, { next })" />
            </td>
            <td class="mono">{{ formatNumber(row.prefix, row.next, row.digits) }}</td>
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
