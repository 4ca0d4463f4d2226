<script setup lang="ts">
import { useRouter } from 'vue-router'

import { useSession } from '../stores/session'
import { useSettings } from '../stores/settings'
import NotchMark from './NotchMark.vue'

/** The line on top of every screen: where one is, the unit, the theme, who is signed in. */
const session = useSession()
const settings = useSettings()
const router = useRouter()

async function leave(): Promise<void> {
  await session.signOut()
  await router.push({ name: 'sign-in' })
}
</script>

<template>
  <header>
    <RouterLink class="home" :to="{ name: 'home' }" aria-label="Lean Notch, your jobs"
      ><NotchMark state="here"
    /></RouterLink>
    <slot><b>Lean Notch</b></slot>
    <span class="space" />
    <nav v-if="session.session?.name" aria-label="Workshop">
      <RouterLink :to="{ name: 'rack' }">Stock rack</RouterLink>
      <RouterLink :to="{ name: 'machines' }">Machines</RouterLink>
      <RouterLink :to="{ name: 'notebook' }">Kerf notebook</RouterLink>
    </nav>
    <slot name="actions" />
    <div class="switch" role="group" aria-label="Unit">
      <button :aria-pressed="settings.unit === 'mm'" @click="settings.unit = 'mm'">mm</button>
      <button :aria-pressed="settings.unit === 'in'" @click="settings.unit = 'in'">in</button>
    </div>
    <button class="quiet" @click="settings.theme = settings.theme === 'dim' ? 'light' : 'dim'">
      {{ settings.theme === 'dim' ? 'light' : 'dim' }}
    </button>
    <template v-if="session.session?.name">
      <span class="second">{{ session.session.name }}</span>
      <button class="quiet" @click="leave">sign out</button>
    </template>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 12px;
  height: 38px;
  padding: 0 16px;
  background: var(--title);
  color: var(--title-ink);
}
.home :deep(svg) {
  display: block;
  color: var(--title-ink);
}
nav {
  display: flex;
  gap: 14px;
  margin-right: 6px;
}
nav a {
  color: var(--title-second);
  text-decoration: none;
}
nav a:hover,
nav a[aria-current='page'] {
  color: var(--title-ink);
  text-decoration: underline;
  text-underline-offset: 4px;
}
.space {
  flex: 1;
}
.second {
  color: var(--title-second);
}
.switch {
  display: flex;
  border: 1px solid #ffffff22;
  border-radius: 3px;
}
.switch button {
  border: 0;
  padding: 1px 8px;
  border-radius: 2px;
  color: var(--title-second);
}
.switch [aria-pressed='true'] {
  background: #dde9e6;
  color: #0e4a4e;
  font-weight: 600;
}
header :deep(.quiet) {
  background: #ffffff12;
  padding: 1px 10px;
}
header :deep(.quiet:hover:not(:disabled)) {
  background: #ffffff28;
}
header :deep(:focus-visible) {
  outline-color: #9fd4cf;
}
</style>
