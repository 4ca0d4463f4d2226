<script setup lang="ts">
import { computed } from 'vue'

import type { TableNews } from '../api/client'
import { useSay } from '../composables/useSay'
import NotchMark from './NotchMark.vue'

/** What is new in the workshop for the jobs on the table; each sentence ends in what to do. */
const props = defineProps<{ news: readonly TableNews[] }>()
const say = useSay()
const SHOWN = 2

const jobsOf = ({ jobs }: TableNews) => (jobs.length === 1 ? jobs[0]!.name : `${jobs.length} jobs`)
const months = (days: number) => Math.round(days / 30.4)
const shown = computed(() => props.news.slice(0, SHOWN))
</script>

<template>
  <p v-if="news.length" class="news" role="status">
    <NotchMark state="look" />
    <span v-for="one in shown" :key="one.said || `${one.stock}-${one.machine_id}`">
      <template v-if="one.what === 'newer'">
        <b>{{ say.sentence(one.said) }}</b><template v-if="one.at">, {{ say.moment(one.at) }}</template
        >; {{ jobsOf(one) }} can follow.
        <RouterLink :to="{ name: 'newer' }">See what would change</RouterLink>
      </template>
      <template v-else>
        <b>{{ one.machine }}’s kerf for {{ one.board }} is {{ months(one.days!) }} months old</b>;
        {{ jobsOf(one) }} {{ one.jobs.length === 1 ? 'uses' : 'use' }} it.
        <RouterLink
          :to="{
            name: 'notebook',
            query: { machine: one.machine_id, ...(one.stock ? { stock: one.stock } : {}) },
          }"
          >Measure it again</RouterLink
        >
      </template>
    </span>
    <span v-if="news.length > SHOWN" class="second"
      >and {{ news.length - SHOWN }} more, at the jobs below</span
    >
  </p>
</template>

<style scoped>
.news {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  padding: 8px 24px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
</style>
