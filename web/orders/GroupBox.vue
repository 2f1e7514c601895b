<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { joinGroup, leaveGroup, readOrder } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { stationOf } from '#core/orders'
import { call, CallProblem, StageRing, useUndo, PickField } from '#web/kit'
import { findOpenOrders, useOpenSheet } from '#web/sheets'

/** The group of an order: what leads it, or what it leads. Taking one out leaves it whole. */
const { sheet, whyNot, reload } = useOpenSheet<OrderSheet>()
const mayEdit = computed(() => !whyNot('group'))
const said = useUndo()
const choosing = ref<'lead' | 'member' | null>(null)

async function change(act: () => Promise<unknown>, words: string, back?: () => Promise<unknown>): Promise<void> {
  try {
    await act()
    said.say(words, back && (() => back().then(reload)))
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
  }
  choosing.value = null
  await reload()
}
const versionOf = async (id: number) => (await call(readOrder, { id })).version
const put = async (id: number, leadId: number) => call(joinGroup, { id, version: await versionOf(id), leadId })
const take = async (id: number) => call(leaveGroup, { id, version: await versionOf(id) })
const others = async (q: string) => (await findOpenOrders(q)).filter((one) => one.value !== sheet.value.id)
</script>

<template>
  <div class="group">
    <p v-if="sheet.lead">
      It belongs to the group of
      <RouterLink :to="`/desk/planning/order/${sheet.lead.id}`"
        ><span class="mono">{{ sheet.lead.number }}</span> {{ sheet.lead.summary }}</RouterLink
      >.
      <NButton
        v-if="mayEdit"
        @click="
          change(
            () => take(sheet.id),
            `${sheet.number} is out of the group, and whole.`,
            () => put(sheet.id, sheet.lead!.id),
          )
        "
      >
        Take it out of the group
      </NButton>
    </p>
    <template v-else>
      <ul v-if="sheet.members.length" aria-label="Orders it leads">
        <li v-for="one in sheet.members" :key="one.id">
          <RouterLink :to="`/desk/${stationOf(one.state)}/order/${one.id}`"
            ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
          >
          <StageRing :state="one.state" :held-from="one.heldFrom" />
          <NButton
            v-if="mayEdit"
            :aria-label="`Take ${one.number} out of the group`"
            @click="
              change(
                () => take(one.id),
                `${one.number} is out of the group, and whole.`,
                () => put(one.id, sheet.id),
              )
            "
          >
            Take out
          </NButton>
        </li>
      </ul>
      <p v-else class="soft">It stands alone. Orders that belong together can be put under one that leads them.</p>
      <template v-if="mayEdit">
        <PickField
          v-if="choosing"
          id="f-group"
          :label="choosing === 'member' ? 'Order to put under this one' : 'Order that leads it'"
          :value="null"
          :find="others"
          @pick="
            choosing === 'member'
              ? change(() => put(Number($event), sheet.id), 'It is in the group.')
              : change(() => put(sheet.id, Number($event)), 'It is in the group.')
          "
        />
        <div v-else class="acts">
          <NButton @click="choosing = 'member'">Put an order under this one</NButton>
          <NButton v-if="!sheet.members.length" @click="choosing = 'lead'">Put it under another</NButton>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 4px 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
