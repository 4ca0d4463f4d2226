<script setup lang="ts">
import { computed } from 'vue'

import type { Export } from '../api/client'
import { useSay } from '../composables/useSay'

/** What the proof of each file said that was saved just now: the bytes themselves, read back. */
const props = defineProps<{ files: readonly Export[] }>()
const say = useSay()
const SHOWN = 4

/** Files of which the same was said are told together. */
const groups = computed(() => {
  const found = new Map<string, Export[]>()
  for (const one of props.files) {
    const said = one.proof?.sentence ?? 'Not read back'
    found.set(said, [...(found.get(said) ?? []), one])
  }
  return [...found.entries()].map(([said, some]) => ({
    said,
    good: some[0]!.proof?.verdict === 'fits',
    what: some.length > 1 ? `${some.length} files` : 'The file',
    whys: [...new Set(some.flatMap(({ proof }) => [...(proof?.stops ?? []), ...(proof?.unseen ?? [])]))],
  }))
})
</script>

<template>
  <div role="status">
    <template v-for="{ said, good, what, whys } in groups" :key="said">
      <p :class="good ? 'good' : 'ochre'">
        {{ good ? '✓ ' : '' }}{{ what }} as saved: {{ say.sentence(said) }}, read back
      </p>
      <ul v-if="whys.length" class="small">
        <li v-for="why in whys.slice(0, SHOWN)" :key="why">{{ say.sentence(why) }}</li>
        <li v-if="whys.length > SHOWN">{{ whys.length - SHOWN }} more</li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.good {
  color: var(--deep);
  font-weight: 600;
}
ul {
  padding-left: 1.2rem;
  list-style: disc;
}
</style>
