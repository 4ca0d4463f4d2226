<script setup lang="ts">
import { useRouter } from 'vue-router'

import { optionsOf } from '../kit/options'
import { useSession } from '../stores/session'
import { useSettings } from '../stores/settings'
import NotchMark from './NotchMark.vue'

/** The line on top of every screen: where one is, the unit, who is signed in. */
const session = useSession()
const settings = useSettings()
const router = useRouter()
const UNITS = optionsOf(['mm', 'in'])

const ACTS: Record<string, () => Promise<unknown> | void> = {
  settings: () => router.push({ name: 'settings' }),
  theme: () => void (settings.themeChoice = settings.theme === 'dim' ? 'light' : 'dim'),
  leave: async () => {
    await session.signOut()
    await router.push({ name: 'sign-in' })
  },
}
</script>

<template>
  <header class="title-line">
    <RouterLink class="home" :to="{ name: 'home' }" aria-label="Lean Notch, all jobs">
      <NotchMark state="here" /><b v-if="!$slots['default']">Lean Notch</b>
    </RouterLink>
    <slot />
    <span class="space" />
    <nav v-if="session.shown" aria-label="Workshop">
      <RouterLink :to="{ name: 'rack' }">Stock rack</RouterLink>
      <RouterLink :to="{ name: 'machines' }">Machines</RouterLink>
      <RouterLink :to="{ name: 'notebook' }">Kerf notebook</RouterLink>
      <RouterLink :to="{ name: 'check' }">Check a drawing</RouterLink>
    </nav>
    <slot name="actions" />
    <ElSegmented v-model="settings.unit" aria-label="Unit" size="small" :options="UNITS" />
    <ElDropdown v-if="session.shown" trigger="click" @command="ACTS[$event as string]!()">
      <ElButton class="quiet" size="small">{{ session.shown }} ▾</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="settings">Settings</ElDropdownItem>
          <ElDropdownItem command="theme">{{ settings.theme === 'dim' ? 'Light' : 'Dark' }}</ElDropdownItem>
          <ElDropdownItem command="leave" divided>Sign out</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
  </header>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
  min-height: 2.55rem;
  padding: 3px 16px;
  background: var(--title);
  color: var(--title-ink);
}
.home {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 26px;
  min-height: 26px;
  color: var(--title-ink);
  text-decoration: none;
}
.home :deep(svg) {
  color: var(--title-ink);
}
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin-right: 6px;
}
nav a {
  display: inline-block;
  min-height: 24px;
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
header :deep(.quiet) {
  --el-button-bg-color: color-mix(in srgb, var(--title-ink) 8%, var(--title));
  --el-button-text-color: var(--title-ink);
  --el-button-border-color: transparent;
  --el-button-hover-bg-color: color-mix(in srgb, var(--title-ink) 18%, var(--title));
  --el-button-hover-text-color: var(--title-ink);
  --el-button-disabled-bg-color: transparent;
  --el-button-disabled-border-color: transparent;
  --el-button-disabled-text-color: color-mix(in srgb, var(--title-ink) 45%, var(--title));
}
header :deep(.el-segmented) {
  --el-segmented-bg-color: transparent;
  --el-segmented-color: var(--title-second);
  --el-segmented-item-selected-bg-color: #dde9e6;
  --el-segmented-item-selected-color: #0e4a4e;
  --el-segmented-item-hover-bg-color: color-mix(in srgb, var(--title-ink) 18%, var(--title));
  --el-segmented-item-hover-color: var(--title-ink);
  border-color: color-mix(in srgb, var(--title-ink) 35%, var(--title));
}
header :deep(:focus-visible) {
  outline-color: #9fd4cf;
}
@media (max-width: 1240px) {
  header {
    gap: 2px 8px;
    padding-inline: 10px;
  }
  nav {
    gap: 2px 9px;
    margin-right: 0;
  }
}
</style>
