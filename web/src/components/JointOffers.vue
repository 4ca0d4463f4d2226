<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Together } from '../api/client'
import { freeName } from '../steps'
import { useSay } from '../composables/useSay'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'

/** Pairs of parts that could be joined, and those that almost meet, with the number that closes the gap. */
const props = defineProps<{ together: Together; chosen: string }>()
const emit = defineEmits<{ choose: [key: string] }>()
const job = useJob()
const say = useSay()
const choices = useChoices()
const MOST = 6
const all = ref(false)
type Proposal = Together['proposals'][number]

const rows = computed(() => props.together.proposals.map((one, i) => ({ key: String(i), ...one })))
const shown = computed(() => (all.value ? rows.value : rows.value.slice(0, MOST)))

const titleOf = (kind: string) => choices.choices?.joints[kind]?.title ?? kind

/** What meets already; each with the kind that is offered first. */
const ready = computed(() => rows.value.filter(({ off }) => !off))

/** One edit for all of them: they are undone together. */
async function join(some: readonly Proposal[], kind?: string): Promise<void> {
  const taken = (job.design!.joints as { id: string }[]).map((joint) => joint.id)
  const edits = some.map((one) => {
    const id = freeName('joint', taken)
    taken.push(id)
    const how = { kind: kind ?? one.kinds[0]! }
    return {
      verb: 'put' as const,
      path: `joints/${id}`,
      value: { title: one.title, first: one.first, second: one.second, how },
    }
  })
  if (await job.edit(...edits)) job.pick('joint', edits.at(-1)!.path.split('/')[1]!)
}

const close = (one: Proposal) => job.edit({ verb: 'put', path: one.closes!.path, value: one.closes!.value })
</script>

<template>
  <section v-if="rows.length" class="offers">
    <h2>Could be joined</h2>
    <ElButton v-if="ready.length > 1" size="small" @click="join(ready)"
      >Join all {{ ready.length }} that meet</ElButton
    >
    <ul>
      <li
        v-for="one in shown"
        :key="one.key"
        :class="{ near: one.off, chosen: chosen === one.key }"
        @mouseenter="emit('choose', one.key)"
        @focusin="emit('choose', one.key)"
      >
        <p class="small">{{ say.sentence(one.sentence) }}</p>
        <p class="acts">
          <template v-if="one.off">
            <ElButton v-if="one.closes" size="small" type="primary" @click="close(one)">Close it</ElButton>
            <span class="small second">{{ say.sentence(one.says) }}</span>
          </template>
          <template v-else>
            <ElButton v-for="kind in one.kinds" :key="kind" size="small" @click="join([one], kind)">{{
              titleOf(kind)
            }}</ElButton>
          </template>
        </p>
      </li>
    </ul>
    <ElButton v-if="rows.length > MOST" link size="small" @click="all = !all">
      {{ all ? 'Fewer' : `${rows.length - MOST} more` }}
    </ElButton>
  </section>
</template>

<style scoped>
.offers {
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
li {
  padding: 5px 8px;
  margin-inline: -8px;
}
li.chosen {
  background: var(--deep-wash);
}
li.near {
  border-left: 3px solid var(--ochre);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
.acts :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
