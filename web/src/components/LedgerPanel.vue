<script setup lang="ts">
import { computed } from 'vue'

import { useJob } from '../stores/job'
import FigureRow from './FigureRow.vue'

/** The numbers of one subject of the job. */
const props = defineProps<{ subject: string; title: string; about?: string }>()
const job = useJob()
const rows = computed(() => job.design?.ledger[props.subject] ?? [])
</script>

<template>
  <section v-if="rows.length">
    <h2>{{ title }}</h2>
    <p v-if="about" class="small second about">{{ about }}</p>
    <ul>
      <FigureRow v-for="row in rows" :key="row.key" :row="row" :subject="subject" />
    </ul>
    <slot />
  </section>
</template>

<style scoped>
section {
  padding-top: 12px;
}
h2 {
  padding: 0 18px 3px;
}
.about {
  padding: 0 18px 6px;
  margin-top: -3px;
}
</style>
