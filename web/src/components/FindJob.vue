<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'

import { useActs } from '../composables/useActs'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'

/** Anything of the job by its name: parts, steps, named lengths, stops, and what can be done with what is selected. */
const emit = defineEmits<{ close: [] }>()
const job = useJob()
const say = useSay()
const router = useRouter()
const acts = useActs()
const text = ref('')
const at = ref(0)
const field = useTemplateRef<HTMLInputElement>('field')
const MOST = 12

interface Found {
  name: string
  what: string
  run: () => unknown
}

const everything = computed<Found[]>(() => {
  const design = job.design!
  const shape = (act: () => void) => async () => {
    await router.push({ name: 'shape' })
    act()
  }
  return [
    ...acts.ofSelected().map(({ name, run }) => ({ name, what: 'with what is selected', run })),
    ...design.parts.map(({ id, title }) => ({
      name: title,
      what: 'part',
      run: shape(() => job.pick('part', id)),
    })),
    ...design.parts.flatMap((part) =>
      part.steps.map(({ id, title }) => ({
        name: title,
        what: `step of ${part.title}`,
        run: shape(() => job.pick('step', part.id, id)),
      })),
    ),
    ...design.lengths.map(({ name, title, value }) => ({
      name: name === title ? name : `${name}, ${title}`,
      what: `named length, ${say.length(value ?? 0)} ${say.unit}`,
      run: shape(() => (job.litName = name)),
    })),
    ...job.route.map(({ key, title }) => ({
      name: title,
      what: 'stop',
      run: () => router.push({ name: key }),
    })),
  ]
})
const found = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
  const fits = ({ name, what }: Found) =>
    words.every((word) => `${name} ${what}`.toLowerCase().includes(word))
  return everything.value.filter(fits).slice(0, MOST)
})

function choose(one: Found | undefined): void {
  if (!one) return
  emit('close')
  void one.run()
}
function step(by: number): void {
  at.value = (at.value + by + found.value.length) % Math.max(found.value.length, 1)
}
onMounted(async () => {
  await nextTick()
  field.value?.focus()
})
</script>

<template>
  <div class="veil" @click.self="emit('close')">
    <div class="find" role="dialog" aria-label="Find in this job">
      <input
        ref="field"
        v-model="text"
        role="combobox"
        aria-expanded="true"
        aria-controls="found-list"
        aria-label="Find a part, a step, a length, a stop or something to do"
        placeholder="A part, a step, a length, a stop, something to do"
        autocomplete="off"
        @input="at = 0"
        @keydown.down.prevent="step(1)"
        @keydown.up.prevent="step(-1)"
        @keydown.enter.prevent="choose(found[at])"
        @keydown.esc.stop="emit('close')"
      />
      <ul id="found-list" role="listbox">
        <li
          v-for="(one, i) in found"
          :key="`${one.what}${one.name}${i}`"
          role="option"
          :aria-selected="i === at"
          @mousemove="at = i"
          @click="choose(one)"
        >
          <b>{{ one.name }}</b> <span class="small second">{{ one.what }}</span>
        </li>
        <li v-if="!found.length" class="second">Nothing of that name</li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  z-index: 30;
  background: color-mix(in srgb, var(--ink) 22%, transparent);
}
.find {
  width: min(34rem, calc(100vw - 32px));
  margin: 12vh auto 0;
  background: var(--panel);
  border: 1px solid var(--deep);
}
input {
  width: 100%;
  min-height: 2.9rem;
  padding: 4px 16px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: var(--sheet);
  color: var(--ink);
  font-size: 1.1rem;
}
li {
  padding: 6px 16px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--deep-wash);
}
</style>
