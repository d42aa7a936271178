<script setup lang="ts">
import { focusMainPart } from '@/composables/mainPart'
import { useForMe } from '@/composables/useForMe'
import { useSession, useSignOut } from '@/composables/useSession'

defineProps<{ migration?: { id: number; name: string } | null; dataset?: string | null }>()
const { data: session } = useSession()
const signOut = useSignOut()
const { data: waiting } = useForMe(() => session.value?.person != null)
</script>

<template>
  <div class="top">
    <button type="button" class="plain skip" @click="focusMainPart">Skip to the content</button>
    <RouterLink to="/" class="home" aria-label="Nine Tally, to the board">
      <svg viewBox="0 0 40 22" width="40" height="22" aria-hidden="true">
        <g stroke="#fff" stroke-width="2.4" stroke-linecap="round">
          <path d="M4 3v16M9 3v16M14 3v16M19 3v16" />
          <path d="M1.5 16.5 21.5 5.5" stroke="#f0a24a" />
          <path d="M26 3v16M30.5 3v16M35 3v16M39 3v16" stroke="#8fb0ff" />
        </g>
      </svg>
      <b class="name">Nine Tally</b>
    </RouterLink>
    <RouterLink v-if="migration" :to="`/migrations/${migration.id}`" :class="dataset ? 'dim' : 'here'">{{ migration.name }}</RouterLink>
    <template v-if="dataset">
      <span class="dim" aria-hidden="true">/</span>
      <b>{{ dataset }}</b>
    </template>
    <span class="space" />
    <slot />
    <template v-if="session?.person">
      <RouterLink to="/for-me" class="waiting">{{ waiting && waiting.asked.length > 0 ? `${waiting.asked.length} for you` : 'For you' }}</RouterLink>
      <RouterLink v-if="session.person.isAdministrator" to="/people" class="waiting">People</RouterLink>
      <RouterLink v-if="session.person.isAdministrator" to="/connections" class="waiting">Connections</RouterLink>
      <RouterLink v-if="session.person.isAdministrator" to="/work" class="waiting">Work</RouterLink>
      <RouterLink to="/account" class="person waiting">{{ session.person.name }}</RouterLink>
      <button type="button" class="plain" @click="signOut">Sign out</button>
    </template>
  </div>
</template>

<style scoped>
.top {
  background: var(--night);
  color: #dfe6ee;
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 14px;
  min-block-size: 44px;
  white-space: nowrap;
}
.top > * {
  min-inline-size: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.home,
button {
  flex: none;
}
a {
  color: inherit;
  text-decoration: none;
}
.skip:not(:focus) {
  position: absolute;
  inline-size: 1px;
  block-size: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.home {
  display: flex;
  gap: 14px;
  align-items: center;
}
b {
  font-weight: 650;
  color: #fff;
}
.here {
  font-weight: 650;
  color: #fff;
}
.waiting:not(.person) {
  flex: none;
}
.waiting {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.dim {
  color: #9fb0c2;
}
.space {
  flex: 1;
}
button {
  color: #dfe6ee;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.top :focus-visible {
  outline-color: #fff;
  box-shadow: none;
}
@media (width < 600px) {
  .name,
  .person,
  .dim {
    display: none;
  }
}
</style>
