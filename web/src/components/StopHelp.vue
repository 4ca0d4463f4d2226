<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { useShortcuts } from '../composables/useShortcuts'
import { HELP } from '../help'

/** What a stop decides, and what usually goes wrong there: three sentences, opened by a key or a click. */
const route = useRoute()
const open = ref(false)
const said = computed(() => HELP[String(route.name)] ?? [])
useShortcuts({ about: () => (open.value = !open.value), escape: () => (open.value = false) })
</script>

<template>
  <ElButton
    v-if="said.length"
    link
    size="small"
    :aria-expanded="open"
    title="What this stop decides (H)"
    @click="open = !open"
    >{{ open ? 'Close help' : 'Help' }}</ElButton
  >
  <div v-if="open" class="help" role="note">
    <p v-for="sentence in said" :key="sentence">{{ sentence }}</p>
  </div>
</template>

<style scoped>
.help {
  order: 9;
  flex-basis: 100%;
  display: grid;
  gap: 3px;
  max-width: 62rem;
  margin: 4px 0;
  padding: 8px 14px;
  background: var(--deep-wash);
  border-left: 4px solid var(--deep);
}
</style>
