<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { RequestSheet } from '#contract/requests'
import { counted } from '#core/kit'
import { CHANNEL_NAMES, isUndecided } from '#core/requests'
import type { Channel } from '#core/requests'
import { FactRow, longTime, shortTime } from '#web/kit'
import { PictureRow, SheetFact, useOpenSheet } from '#web/sheets'
import { useDeciding } from './deciding'
import WholeMail from './WholeMail.vue'

/** What was reported, by whom and how, to be read; what the desk may put right turns into its field when pressed. */
const { sheet: it } = useOpenSheet<RequestSheet>()
const { fields } = useDeciding()
const corrected = computed(() => it.value.summary !== it.value.writtenSummary || it.value.description !== it.value.writtenDescription)
/** Where a link leads, said before it is followed. */
const hostOf = (url: string) => (URL.canParse(url) ? new URL(url).host : 'an address that cannot be read')
const SAID = 'This is as it came in.'
const reporter = computed(() => [it.value.reporter.name, it.value.reporter.phone, it.value.reporter.email].filter(Boolean).join(', '))
</script>

<template>
  <dl class="facts">
    <SheetFact :field="fields.summary" />
    <SheetFact :field="fields.description" />
    <FactRow
      name="reporter"
      label="Reporter"
      :says="reporter || 'They left no name and no address. They follow it on their private link.'"
      :why-not="SAID"
      wide
    />
    <FactRow name="received" label="Received" :says="`${CHANNEL_NAMES[it.channel as Channel]}, ${longTime(it.receivedAt)}`" :why-not="SAID" />
    <SheetFact :field="fields.outsideReference" />
    <FactRow v-if="it.sentBy?.address" name="address" label="Address given" :says="it.sentBy.address" :why-not="SAID" />
    <FactRow
      v-if="it.sentBy?.lat !== undefined"
      name="position"
      label="Position of the device (WGS 84)"
      mono
      :says="`${it.sentBy.lat.toFixed(5)}, ${it.sentBy.long?.toFixed(5)}`"
      :why-not="SAID"
    />
    <template v-if="!isUndecided(it.state)">
      <FactRow v-for="one in it.answers" :key="one.label" :name="one.label" :label="one.label" :says="one.answer" :why-not="SAID" />
    </template>
  </dl>
  <p v-if="it.sentBy?.mediaUrl">
    Picture kept elsewhere:
    <a :href="it.sentBy.mediaUrl" target="_blank" rel="noopener noreferrer nofollow">Open it at {{ hostOf(it.sentBy.mediaUrl) }}</a>
    <span class="soft"> This leaves Evrix.</span>
  </p>
  <p v-if="it.wish" class="soft">Wished for: “{{ it.wish }}”. A wish is not a priority.</p>
  <div v-if="corrected" class="written">
    <p class="label soft">What the reporter wrote</p>
    <p>
      <strong>{{ it.writtenSummary }}</strong>
    </p>
    <p class="text">{{ it.writtenDescription }}</p>
  </div>
  <div v-for="mail in it.mails" :key="mail.id" class="by-mail">
    <p v-if="mail.leftOut" class="outcome">{{ mail.leftOut }} The whole mail is here.</p>
    <WholeMail :id="mail.id" :label="`Open the whole mail of ${shortTime(mail.receivedAt)}`" />
  </div>
  <template v-if="!isUndecided(it.state)">
    <PictureRow v-if="it.attachments.length" :pictures="it.attachments" />
    <p v-for="one in it.bulletins" :key="one.id" class="outcome">
      Notice here, {{ shortTime(one.startsAt) }} to {{ shortTime(one.endsAt) }}: <strong>{{ one.title }}</strong>
    </p>
  </template>
  <p v-if="it.repeats" class="outcome">
    Said to be not fixed: <RouterLink :to="`/desk/triage/request/${it.repeats.id}`" class="mono">{{ it.repeats.number }}</RouterLink>
  </p>
  <p v-for="other in it.joinedFrom" :key="other.id">
    Also told by <RouterLink :to="`/desk/triage/request/${other.id}`" class="mono">{{ other.number }}</RouterLink>
  </p>
  <p v-if="it.followers.length" class="soft">
    {{ counted(it.followers.length, 'other') }} follow{{ it.followers.length === 1 ? 's' : '' }} it:
    {{ it.followers.map((one) => one.name ?? one.email).join(', ') }}
  </p>
</template>

<style scoped src="../sheets/sheet.css"></style>
