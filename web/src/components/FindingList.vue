<script setup lang="ts">
import { computed } from 'vue'

import type { Finding } from '../api/client'
import { freeName } from '../steps'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** What the proof found: where, how much, and what to do. */
const props = defineProps<{
  findings: readonly Finding[]
  onShow?: (finding: Finding) => void
}>()
const job = useJob()
const say = useSay()

/** Those that say the same of one thing after the other stand together: the first, and how many more. */
const groups = computed(() => {
  const found = new Map<string, Finding[]>()
  for (const one of props.findings) {
    const key = `${one.code} ${one.severity} ${one.fix.replace(/[\d.,]+/g, '#')}`
    found.set(key, [...(found.get(key) ?? []), one])
  }
  return [...found].map(([key, all]) => {
    const [first, ...rest] = all
    return { key, first: first!, rest, count: all.reduce((sum, one) => sum + (one.more || 1), 0) }
  })
})

/** The part that a placement stands for becomes one of its own, the same so far. */
function makeOwn(placement: string): void {
  const part = job.design!.parts.find(({ id }) =>
    job.design!.standings.some((one) => one.placement === placement && one.part === id),
  )
  if (!part) return
  const id = freeName(part.id, job.design!.parts.map((one) => one.id)) // prettier-ignore
  const steps = part.steps.map(({ document }) => document)
  void job.edit(
    {
      verb: 'put',
      path: `parts/${id}`,
      value: { title: `${part.title}, another`, board: part.board, steps },
    },
    { verb: 'put', path: `placements/${placement}/part`, value: id },
  )
}
</script>

<template>
  <section>
    <h2 v-if="findings.length">Found</h2>
    <ul>
      <li v-for="group in groups" :key="group.key" :class="group.first.severity">
        <p>
          {{ say.sentence(group.first.why) }}
          <ElTag v-if="group.count > 1" size="small" type="info">{{ group.count }} like this</ElTag>
        </p>
        <p class="small second">{{ say.sentence(group.first.fix) }}</p>
        <p class="acts">
          <ElButton v-if="group.first.place && onShow" link size="small" @click="onShow(group.first)">
            Show the place
          </ElButton>
          <ElButton
            v-if="group.first.code === 'placements-differ'"
            link
            size="small"
            @click="makeOwn(group.first.field.replace('placements/', ''))"
          >
            Make it a part of its own
          </ElButton>
        </p>
        <details v-if="group.rest.length" class="small">
          <summary>{{ group.count - 1 }} more</summary>
          <ul>
            <li v-for="(one, i) in group.rest" :key="i">
              {{ say.sentence(one.why) }}
              <ElButton v-if="one.place && onShow" link size="small" @click="onShow(one)"
                >Show the place</ElButton
              >
            </li>
          </ul>
        </details>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  padding-top: 12px;
}
h2 {
  padding: 0 18px 6px;
}
section > ul > li {
  padding: 7px 18px;
  border-top: 1px solid var(--line);
  border-left: 3px solid var(--ochre);
}
section > ul > li.stop {
  border-left-color: var(--bad);
}
section > ul > li.unseen {
  border-left-style: dashed;
}
</style>
