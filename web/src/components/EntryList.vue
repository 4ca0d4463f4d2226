<script setup lang="ts">
import type { Entry } from '../api/client'
import { FITS, WAY_TITLES } from '../rack'
import { useSay } from '../composables/useSay'

/** The notebook's entries for one machine, newest first; those marked invalid stay, crossed out. */
defineProps<{ entries: readonly Entry[] }>()
const emit = defineEmits<{ strike: [entry: Entry] }>()
const say = useSay()
const length = (mm: number, digits = 3) => say.length(mm, digits)
</script>

<template>
  <ul>
    <li v-for="entry in entries" :key="entry.id" :class="{ struck: !entry.valid }">
      <span v-if="entry.kerf !== null" class="figure value">
        {{ length(entry.kerf) }}
        <span class="small second">{{ say.within(entry.within) }} {{ say.unit }}</span>
      </span>
      <span v-else-if="entry.fits" class="figure fits small">
        <span v-for="name in FITS" :key="name">
          <span class="second">{{ name }}</span> {{ say.signed(entry.fits[name]) }}
        </span>
      </span>
      <span v-if="entry.offered" class="offered small">In use</span>
      <span class="small all">
        {{ WAY_TITLES[entry.way] }} on {{ entry.stock_name }} {{ length(entry.thickness, 2) }}
        <template v-if="entry.tool">, {{ entry.tool }}</template>
      </span>
      <span class="small second all">
        {{ say.date(entry.made) }}<template v-if="entry.by">, {{ entry.by }}</template>
        <template v-if="entry.note"> · {{ entry.note }}</template>
      </span>
      <span v-for="warning in entry.valid ? entry.warnings : []" :key="warning" class="small ochre all">
        {{ say.sentence(warning) }}
      </span>
      <span class="all">
        <ElButton link size="small" @click="emit('strike', entry)">
          {{ entry.valid ? 'Mark invalid' : 'Mark valid' }}
        </ElButton>
      </span>
    </li>
  </ul>
  <p v-if="!entries.length" class="small second">No entries yet for this machine.</p>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 7px 0;
  border-top: 1px solid var(--line);
}
.all {
  grid-column: 1 / -1;
}
.value {
  font-size: 1.07rem;
}
.fits {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
.struck > :not(:last-child) {
  text-decoration: line-through;
  opacity: 0.6;
}
.offered {
  align-self: start;
  padding: 0 6px;
  background: var(--deep-wash);
  color: var(--deep);
}
</style>
