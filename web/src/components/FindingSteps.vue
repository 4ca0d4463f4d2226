<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import type { Finding } from '../api/client'
import { useSay } from '../composables/useSay'
import { stopOfField } from '../fields'
import { useJob } from '../stores/job'

/** Findings one after the other: what, why it is so, and what does away with it. */
const props = defineProps<{ findings: readonly Finding[] }>()
const at = defineModel<number>({ required: true })
defineEmits<{ look: [finding: Finding] }>()
const job = useJob()
const say = useSay()
const router = useRouter()

const one = computed(() => props.findings[at.value] ?? null)
const count = computed(() => props.findings.length)
const step = (by: number) => (at.value = (at.value + by + count.value) % count.value)

const lead = computed(() => {
  const { mend, field, part, joint } = one.value ?? {}
  if (mend) return null
  const stop = field ? stopOfField(field) : joint ? 'join' : part ? 'shape' : null
  return (
    stop && { stop, words: { measure: 'Measure', shape: 'Shape', join: 'Join', 'lay-out': 'Lay out' }[stop] }
  )
})

function go(): void {
  const { part, joint } = one.value!
  if (joint) job.pick('joint', joint)
  else if (part) job.pick('part', part)
  void router.push({ name: lead.value!.stop })
}

const mend = () => job.put(one.value!.mend!.path, one.value!.mend!.value)
</script>

<template>
  <section v-if="one" class="finding" :class="one.severity" aria-label="Findings">
    <header>
      <b>{{ at + 1 }} of {{ count }} to look at</b>
      <span v-if="count > 1">
        <ElButton size="small" aria-label="The one before" title="The one before (P)" @click="step(-1)"
          >‹</ElButton
        >
        <ElButton size="small" aria-label="The next one" title="The next one (N)" @click="step(1)"
          >›</ElButton
        >
      </span>
    </header>
    <p class="why" aria-live="polite">{{ say.sentence(one.why) }}</p>
    <p>{{ say.sentence(one.fix) }}</p>
    <p class="acts">
      <ElButton v-if="one.mend" @click="mend">{{ say.sentence(one.mend.says) }}</ElButton>
      <ElButton v-else-if="lead" size="small" @click="go">Go to {{ lead.words }}</ElButton>
      <ElButton v-if="one.place" link size="small" @click="$emit('look', one)">Show the place</ElButton>
    </p>
  </section>
</template>

<style scoped>
.finding {
  display: grid;
  gap: 3px;
  padding: 9px 18px 10px 15px;
  background: var(--ochre-wash);
  border-left: 4px solid var(--ochre);
}
.finding.stop {
  background: var(--bad-wash);
  border-left-color: var(--bad);
}
.finding.unseen {
  background: var(--panel);
  border-left-style: dashed;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  color: var(--ochre-text);
}
.stop header {
  color: var(--bad);
}
.why {
  font-size: 1.07rem;
  font-weight: 600;
  line-height: 1.3;
}
</style>
