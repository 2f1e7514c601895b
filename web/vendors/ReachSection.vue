<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { RecordFrame } from '#contract/registers'
import { dropContact, editReach, readReach, saveContact } from '#contract/vendors'
import type { VendorReach } from '#contract/vendors'
import { call, ProblemNote, TextEntry, useFormDraft, useRead, useVocabulary } from '#web/kit'
import { FoldForm, TagRow, useLineAct, useOpenSheet } from '#web/sheets'

/** What a vendor does, where, and whom to call there. */
const { sheet: open } = useOpenSheet<RecordFrame>()
const reach = useRead(readReach, () => ({ id: open.value.id }), {
  anew: true,
  touchedBy: (change) => change.register === 'vendors' && change.recordId === open.value.id,
})
const words = useVocabulary()
void words.ensure()
const take = (now: VendorReach): void => void (reach.value.value = now)
const { act, at, busy } = useLineAct<VendorReach>(take)
const fold = ref<InstanceType<typeof FoldForm> | null>(null)
const { form, kept, drop } = useFormDraft(`contact-${open.value.id}`, { name: '', role: '', email: '', phone: '' })
async function add(): Promise<void> {
  const contact = { id: open.value.id, name: form.name.trim(), role: form.role.trim(), email: form.email.trim(), phone: form.phone.trim() }
  if (!(await act(() => call(saveContact, contact), `${contact.name} is noted.`))) return
  drop()
  fold.value?.close()
}
</script>

<template>
  <ProblemNote v-if="reach.problem.value && !reach.value.value" :problem="reach.problem.value" @retry="reach.load" />
  <span v-else-if="!reach.value.value" class="bones" role="status" aria-label="Loading" />
  <template v-else>
    <h3>Trades</h3>
    <TagRow
      id="vendor-trade"
      of="trade"
      :tags="reach.value.value.trades"
      :choices="words.choices((all) => all.trades)"
      :why-not="reach.value.value.whyNot"
      none="None said: they come last where somebody is looked for."
      @keep="(tradeIds) => act(() => call(editReach, { id: open.id, tradeIds }), 'These are their trades.')"
    />
    <h3>Sites</h3>
    <TagRow
      id="vendor-site"
      of="site"
      :tags="reach.value.value.sites"
      :choices="words.choices((all) => all.sites)"
      :why-not="reach.value.value.whyNot"
      none="Every site."
      @keep="(siteIds) => act(() => call(editReach, { id: open.id, siteIds }), 'This is where they come.')"
    />
    <h3>Whom to call</h3>
    <table v-if="reach.value.value.contacts.length" class="plain-table">
      <thead>
        <tr>
          <th>Name</th>
          <th>Role</th>
          <th>Mail</th>
          <th>Phone</th>
          <th><span class="hidden">Away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="contact in reach.value.value.contacts" :key="contact.id">
          <td>{{ contact.name }}</td>
          <td>{{ contact.role ?? '–' }}</td>
          <td>{{ contact.email ?? '–' }}</td>
          <td class="mono">{{ contact.phone ?? '–' }}</td>
          <td class="right">
            <NButton
              v-if="!reach.value.value.whyNot"
              size="tiny"
              :aria-label="`Take ${contact.name} away`"
              @click="act(() => call(dropContact, { id: open.id, itemId: contact.id }), `${contact.name} is taken away.`)"
              >×</NButton
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">Nobody besides the mail address above.</p>
    <FoldForm v-if="!reach.value.value.whyNot" ref="fold" label="Note a contact" :begun="kept" @send="add">
      <TextEntry id="contact-name" v-model="form.name" label="Name" small :max="120" :problem="at('name')" />
      <TextEntry id="contact-role" v-model="form.role" label="Role" small :max="80" :problem="at('role')" />
      <TextEntry id="contact-email" v-model="form.email" label="Mail" small kind="email" :max="190" :problem="at('email')" />
      <TextEntry id="contact-phone" v-model="form.phone" label="Phone" small mono :max="40" :problem="at('phone')" />
      <NButton size="small" attr-type="submit" :disabled="busy || !form.name.trim()">Note the contact</NButton>
    </FoldForm>
  </template>
</template>

<style scoped src="../sheets/lines.css"></style>
