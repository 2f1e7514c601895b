<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { Bell, CircleUserRound } from '@lucide/vue'
import { onMounted, onUnmounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { listNotices, readNotices } from '#contract/people'
import { ROLE_NAMES } from '#core/people'
import { RowButton, call, offerActs, shortTime, theme, toggleTheme, useRead, useSession } from '#web/kit'
import { AwayForm } from '#web/people'

defineEmits<{ leave: [] }>()
const session = useSession()
const router = useRouter()
const awayOpen = ref(false)
offerActs(() => (session.can('desk.read') ? [{ label: 'Who is away, and who decides for them', run: () => (awayOpen.value = true) }] : []))
const open = ref<'notices' | 'person' | null>(null)
const root = ref<HTMLElement | null>(null)
const notices = useRead(listNotices, {}, { touchedBy: () => true })

const away = (event: Event) => {
  if (!root.value?.contains(event.target as Node)) open.value = null
}
onMounted(() => document.addEventListener('pointerdown', away))
onUnmounted(() => document.removeEventListener('pointerdown', away))

async function markRead(): Promise<void> {
  await call(readNotices, {})
  await notices.load()
}

async function go(notice: { orderId: number | null; requestId: number | null; leadsTo: string | null }): Promise<void> {
  open.value = null
  if (notice.leadsTo) await router.push(notice.leadsTo)
  else if (notice.orderId) await router.push(`/desk/planning/order/${notice.orderId}`)
  else if (notice.requestId) await router.push(`/desk/triage/request/${notice.requestId}`)
}
</script>

<template>
  <div ref="root" class="menu" @keydown.esc="open = null">
    <RowButton
      class="icon"
      :aria-expanded="open === 'notices'"
      :aria-label="`Notices, ${notices.value.value?.unread ?? 0} unread`"
      @click="open = open === 'notices' ? null : 'notices'"
    >
      <Bell :size="18" /><span v-if="notices.value.value?.unread" class="unread mono">{{ notices.value.value.unread }}</span>
    </RowButton>
    <RowButton class="icon" :aria-expanded="open === 'person'" :aria-label="session.self?.name" @click="open = open === 'person' ? null : 'person'">
      <CircleUserRound :size="20" />
    </RowButton>
    <div v-if="open === 'person'" class="drop">
      <p>
        <strong>{{ session.self?.name }}</strong>
      </p>
      <p class="soft">{{ session.self?.roles.map((role) => ROLE_NAMES[role]).join(', ') }}, {{ session.self?.site.name }}</p>
      <NButton v-if="session.can('desk.read')" @click="((open = null), router.push('/my-steps'))">My steps</NButton>
      <NButton v-if="session.can('desk.read')" @click="((open = null), (awayOpen = true))">Who is away</NButton>
      <NButton @click="toggleTheme">{{ theme === 'light' ? 'Dark colours' : 'Light colours' }}</NButton>
      <NButton @click="$emit('leave')">Sign out</NButton>
    </div>
    <AwayForm v-if="awayOpen" @close="awayOpen = false" />
    <div v-if="open === 'notices'" class="drop">
      <p><strong>What you were told</strong></p>
      <p v-if="!notices.value.value?.rows.length" class="soft">Nothing yet. Decisions on your orders and questions for you arrive here.</p>
      <RowButton
        v-for="notice in notices.value.value?.rows.slice(0, 12)"
        :key="notice.id"
        class="plain notice"
        :class="{ fresh: !notice.readAt }"
        @click="go(notice)"
      >
        <span class="mono soft">{{ shortTime(notice.at) }}</span> {{ notice.sentence }}
      </RowButton>
      <NButton v-if="notices.value.value?.unread" @click="markRead">Mark all as read</NButton>
    </div>
  </div>
</template>

<style scoped>
.menu {
  position: relative;
  display: flex;
  gap: 4px;
}
.icon {
  position: relative;
  display: grid;
  place-items: center;
  width: 34px;
  height: 34px;
  background: none;
  border: 0;
  border-radius: 6px;
  color: var(--on-deep);
  cursor: pointer;
}
.icon:hover {
  background: rgb(255 255 255 / 14%);
}
.unread {
  position: absolute;
  top: 0;
  right: 0;
  min-width: 16px;
  padding: 0 3px;
  border-radius: 8px;
  background: #f4f1e8;
  color: #0f3a43;
  font-size: 11px;
  line-height: 16px;
}
.drop {
  position: absolute;
  right: 0;
  top: 44px;
  z-index: 40;
  width: 320px;
  max-height: 70vh;
  overflow: auto;
  display: grid;
  gap: 10px;
  padding: 14px;
  background: var(--sheet);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 6px;
  box-shadow: 0 12px 40px rgb(0 0 0 / 30%);
}
.notice {
  padding: 6px 8px;
  border-left: 3px solid transparent;
}
.notice:hover {
  background: var(--shoal-faint);
}
.fresh {
  border-left-color: var(--tide);
  font-weight: 600;
}
</style>
