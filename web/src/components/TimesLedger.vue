<script setup lang="ts">
import type { Operation, Proof } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { lengthText, timeText } from '../units'

/** How long each sheet takes, and what the order of the work saves. */
defineProps<{ proof: Proof }>()
const job = useJob()
const settings = useSettings()
const whole = (mm: number) => String(Number(Number(lengthText(mm, settings.unit, 0)).toFixed(1)))
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
    <h3>
      Sheet {{ sheet.number }}, about <span class="figure">{{ timeText(sheet.seconds) }}</span>
    </h3>
    <p class="small second about">
      {{ proof.own_speeds ? 'at this machine’s speeds' : 'at the usual speeds of such a machine' }}
    </p>
    <ul>
      <li v-for="work in sheet.work" :key="work.operation">
        <span :title="work.title">{{ NAMES[work.operation] }}</span>
        <span class="small second figure">
          {{ work.paths }} · {{ whole(work.length) }} {{ settings.unit }}
        </span>
        <span class="figure">{{ timeText(work.seconds) }}</span>
      </li>
      <li>
        <span>Between paths</span>
        <span class="small second figure">
          {{ whole(sheet.travel) }}, unordered {{ whole(sheet.travel_unordered) }}
        </span>
        <span class="figure">{{ timeText(sheet.travel_seconds) }}</span>
      </li>
      <li v-for="(seconds, part) in sheet.by_part" :key="part" class="second">
        <button @click="job.selected = `part:${part}`">{{ title(String(part)) }}</button>
        <span />
        <span class="figure">{{ timeText(seconds) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h3 {
  padding: 14px 18px 2px;
  font-size: 15.5px;
  font-weight: 600;
}
.about {
  padding: 0 18px 6px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto 76px;
  align-items: baseline;
  gap: 10px;
  padding: 3px 18px;
  border-top: 1px solid var(--line);
}
li > :last-child {
  text-align: right;
}
button {
  padding: 0;
  border: 0;
}
</style>
