<script setup lang="ts">
import { useRoute } from 'vue-router'

import type { Stop } from '../api/client'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'
import NotchMark from './NotchMark.vue'

/** The six stops of a job, each with its live line; free to visit in any order. */
defineProps<{ stops: readonly Stop[] }>()
const route = useRoute()
const settings = useSettings()
</script>

<template>
  <nav aria-label="Route">
    <RouterLink
      v-for="stop in stops"
      :key="stop.key"
      :to="{ name: stop.key, params: route.params }"
      :class="{ here: route.name === stop.key }"
      :aria-current="route.name === stop.key ? 'page' : undefined"
    >
      <NotchMark :state="route.name === stop.key && stop.state !== 'look' ? 'here' : stop.state" />
      <span>
        <b>{{ stop.title }}</b>
        <span class="small second">{{ inUnit(stop.line, settings.unit) }}</span>
        <span v-if="stop.wants" class="small ochre">{{ stop.wants }}</span>
      </span>
    </RouterLink>
  </nav>
</template>

<style scoped>
nav {
  padding-top: 14px;
  border-right: 1px solid var(--line);
  overflow-y: auto;
}
a {
  display: grid;
  grid-template-columns: 19px 1fr;
  gap: 9px;
  align-items: start;
  min-height: 56px;
  padding: 8px 8px 6px 16px;
  color: inherit;
  text-decoration: none;
  border-block: 1px solid transparent;
}
a:hover {
  background: color-mix(in srgb, var(--panel) 60%, transparent);
}
a.here {
  background: var(--panel);
  border-color: var(--line);
}
a:focus-visible {
  outline-offset: -2px;
}
a > span {
  display: grid;
}
b {
  font-weight: 600;
  font-size: 14.5px;
  line-height: 1.2;
}
svg {
  margin-top: 2px;
}
</style>
