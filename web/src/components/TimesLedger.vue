<script setup lang="ts">
import type { Operation, Proof } from '../api/client'
import { useSay } from '../composables/useSay'
import { MM_PER_INCH } from '../units'
import { useJob } from '../stores/job'

/** How long each sheet takes, and what the order of the work saves. */
defineProps<{ proof: Proof }>()
const job = useJob()
const say = useSay()
const whole = (mm: number) => say.number(say.unit === 'mm' ? mm : mm / MM_PER_INCH, say.unit === 'mm' ? 0 : 1)
const NAMES: Record<Operation, string> = {
  engrave: 'Engrave',
  score: 'Score',
  fold: 'Fold lines',
  pocket: 'Pockets',
  cut: 'Through-cuts',
  reference: 'Reference',
}
const title = (id: string) => job.design!.parts.find((part) => part.id === id)?.title ?? id
</script>

<template>
  <section v-for="sheet in proof.times" :key="sheet.number">
    <h2>
      Sheet {{ sheet.number }}, about <span class="figure">{{ say.time(sheet.seconds) }}</span>
    </h2>
    <p class="small second about">
      {{ say.sentence(proof.times_rest_on) }}
    </p>
    <ul>
      <li v-for="work in sheet.work" :key="work.operation">
        <span :title="work.title">{{ NAMES[work.operation] }}</span>
        <span class="small second figure"> {{ work.paths }} · {{ whole(work.length) }} {{ say.unit }} </span>
        <span class="figure">{{ say.time(work.seconds) }}</span>
      </li>
      <li>
        <span>Travel</span>
        <span class="small second">
          <span class="figure">{{ whole(sheet.travel) }}</span> {{ say.unit }}, unordered
          <span class="figure">{{ whole(sheet.travel_unordered) }}</span>
        </span>
        <span class="figure">{{ say.time(sheet.travel_seconds) }}</span>
      </li>
      <li v-for="(seconds, part) in sheet.by_part" :key="part" class="second">
        <button @click="job.pick('part', String(part))">{{ title(String(part)) }}</button>
        <span />
        <span class="figure">{{ say.time(seconds) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  padding: 14px 18px 2px;
}
.about {
  padding: 0 18px 6px;
}
.about::first-letter {
  text-transform: uppercase;
}
li {
  display: grid;
  grid-template-columns: 1fr auto 5.5rem;
  align-items: baseline;
  gap: 10px;
  padding: 3px 18px;
  border-top: 1px solid var(--line);
}
li > :last-child {
  text-align: right;
}
li button {
  padding: 0;
  border: 0;
}
li button:hover {
  text-decoration: underline;
}
</style>
