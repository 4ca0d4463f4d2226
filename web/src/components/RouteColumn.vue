<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import type { Stop } from '../api/client'
import { useSay } from '../composables/useSay'
import NotchMark from './NotchMark.vue'

/** The six stops of a job, each with its live line; free to visit in any order. */
const props = defineProps<{ stops: readonly Stop[] }>()
const route = useRoute()
const phone = useMediaQuery('(max-width: 600px)')
const current = computed(() => (phone.value ? props.stops.find(({ key }) => key === route.name) : null))
const say = useSay()
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
        <span class="small second">{{ say.sentence(stop.line) }}</span>
        <span v-if="stop.wants" class="small ochre">{{ say.sentence(stop.wants) }}</span>
      </span>
    </RouterLink>
    <p v-if="current" class="current small" aria-hidden="true">
      {{ say.sentence(current.line) }}
      <span v-if="current.wants" class="ochre">{{ say.sentence(current.wants) }}</span>
    </p>
  </nav>
</template>

<style scoped>
nav {
  padding-top: 10px;
  border-right: 1px solid var(--line);
  overflow-y: auto;
}
a {
  display: grid;
  grid-template-columns: 19px 1fr;
  gap: 9px;
  align-items: start;
  min-height: 3.6rem;
  padding: 7px 8px 6px 16px;
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
  line-height: 1.3;
}
b {
  font-weight: 600;
}
svg {
  margin-top: 2px;
}
@media (max-width: 1180px) {
  a {
    gap: 7px;
    padding-left: 10px;
  }
}
@media (max-width: 860px) {
  nav {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
    padding: 0;
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
}
/* On a phone a row of marks, and the line of the stop that is open: its own content begins above the fold. */
@media (max-width: 600px) {
  nav {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
  a {
    grid-template-columns: minmax(0, 1fr);
    justify-items: center;
    gap: 2px;
    min-height: 3rem;
    padding: 5px 1px 3px;
    text-align: center;
  }
  b {
    font-size: 0.8rem;
    font-weight: 500;
  }
  a .small {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .current {
    grid-column: 1 / -1;
    padding: 2px 12px 4px;
    background: var(--panel);
  }
}
</style>
