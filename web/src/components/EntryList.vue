<script setup lang="ts">
import type { Entry } from '../api/client'
import { dateText, FITS, WAY_TITLES } from '../rack'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, signedText, withinText } from '../units'

/** The pages of the notebook for one machine, newest first; ones that turned out wrong are struck out and stay. */
defineProps<{ entries: readonly Entry[] }>()
const emit = defineEmits<{ strike: [entry: Entry] }>()
const settings = useSettings()
const length = (mm: number, digits = 3) => lengthText(mm, settings.unit, digits)
</script>

<template>
  <ul>
    <li v-for="entry in entries" :key="entry.id" :class="{ struck: !entry.valid }">
      <span v-if="entry.kerf !== null" class="figure value">
        {{ length(entry.kerf) }}
        <span class="small second">{{ withinText(entry.within, settings.unit) }} {{ settings.unit }}</span>
      </span>
      <span v-else-if="entry.fits" class="figure fits small">
        <span v-for="name in FITS" :key="name">
          <span class="second">{{ name }}</span> {{ signedText(entry.fits[name], settings.unit) }}
        </span>
      </span>
      <span v-if="entry.offered" class="offered small">in use</span>
      <span class="small all">
        {{ WAY_TITLES[entry.way] }} on {{ entry.stock_name }} {{ length(entry.thickness, 2) }}
        <template v-if="entry.tool">, {{ entry.tool }}</template>
      </span>
      <span class="small second all">
        {{ dateText(entry.made) }}<template v-if="entry.by">, {{ entry.by }}</template>
        <template v-if="entry.note"> · {{ entry.note }}</template>
      </span>
      <span v-for="warning in entry.valid ? entry.warnings : []" :key="warning" class="small ochre all">
        {{ inUnit(warning, settings.unit) }}
      </span>
      <span class="all">
        <button class="link small" @click="emit('strike', entry)">
          {{ entry.valid ? 'strike out' : 'count it again' }}
        </button>
      </span>
    </li>
  </ul>
  <p v-if="!entries.length" class="small second">Nothing yet for this machine.</p>
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
  font-size: 16px;
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
.link {
  padding-left: 0;
}
</style>
