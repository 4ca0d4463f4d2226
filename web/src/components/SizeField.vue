<script setup lang="ts">
import { nextTick, ref, useTemplateRef, watch } from 'vue'

import type { Problem } from '../api/client'
import { useSay } from '../composables/useSay'

/** A size where it stands on a drawing: it opens there to be typed, arithmetic included, and says what comes of it before it is
 * kept. Enter keeps, Escape brings back what was there. */
const props = defineProps<{
  /** On the drawing, in px: the middle of the number. */
  at: readonly [number, number]
  label: string
  /** In mm; what is typed to get it. */
  value: number
  text: string
  chosen: boolean
  says?: string
  was?: number | null
  problem?: Problem | null
  /** What comes of the text that stands in the open field, in words. */
  outcome?: readonly string[]
  fixed?: boolean
  /** The line that it stands on runs up: what it says goes below the number. */
  upright?: boolean
  /** Opens it. */
  start?: boolean
}>()
const emit = defineEmits<{ begin: []; draft: [text: string]; keep: [text: string]; leave: [text: string] }>()
const say = useSay()
const open = ref(false)
const draft = ref('')
const input = useTemplateRef('input')
/** What it says over it takes so much. */
const ROOM_PX = 110
let start = ''
/** What was kept here last, if anything was: a problem may be of another size that shares the answer. */
let kept: string | null = null
let refused = false
/** Enter was pressed while an older text's problem still stood. */
let wanted = false

watch(
  () => props.problem,
  (problem) => {
    // What was refused stays as it was typed; it closes again if the refusal was of what stood there before.
    if (problem && !open.value && kept !== null) {
      refused = true
      void reopen()
    } else if (!problem && wanted) {
      keep()
    } else if (!problem && refused) {
      if (open.value && draft.value === kept) open.value = false
      refused = false
    }
  },
)

watch(
  () => props.start,
  (start) => start && void begin(),
  { immediate: true, flush: 'post' },
)

async function begin(): Promise<void> {
  if (props.fixed) return
  draft.value = start = props.text
  emit('begin')
  await reopen()
  input.value?.select()
}

async function reopen(): Promise<void> {
  if (!draft.value) draft.value = props.text
  open.value = true
  await nextTick()
  input.value?.focus()
}

function typed(): void {
  wanted = false
  emit('draft', draft.value)
}

/** What cannot be made stays open, with its problem. */
function keep(): void {
  if (!open.value) return
  wanted = Boolean(props.problem)
  if (wanted) return
  open.value = false
  kept = draft.value
  emit('keep', draft.value)
}

/** An act beside the open field is not a click elsewhere, which would keep what is typed. */
function act(): void {
  wanted = false
  open.value = false
}

function leave(): void {
  wanted = false
  open.value = false
  emit('leave', start)
}
</script>

<template>
  <div
    class="size"
    :class="{ open, wrong: problem, upright }"
    :style="{ left: `${at[0]}px`, top: `${at[1]}px` }"
  >
    <template v-if="open">
      <div class="above small" :class="{ under: at[1] < ROOM_PX }" role="status">
        <template v-if="problem">
          <b class="bad">{{ say.sentence(problem.why) }}</b> {{ say.sentence(problem.fix) }}
        </template>
        <template v-else>
          <b>= {{ say.length(value) }} {{ say.unit }}</b>
          <template v-if="was != null && Math.abs(was - value) > 1e-4"> · was {{ say.length(was) }}</template>
          <span v-for="one in outcome ?? []" :key="one"> · {{ one }}</span>
          · Enter keeps it
        </template>
        <span v-if="$slots['default']" class="beside" @mousedown.prevent @click="act"><slot /></span>
      </div>
      <input
        ref="input"
        v-model="draft"
        class="figure"
        autocomplete="off"
        :aria-label="label"
        :style="{ width: `max(9.5rem, ${draft.length + 3}ch)` }"
        :aria-invalid="problem ? 'true' : undefined"
        @input="typed"
        @keydown.enter="keep"
        @keydown.esc.stop="leave"
        @blur="keep"
      />
    </template>
    <button
      v-else-if="!fixed"
      type="button"
      :aria-label="`${label} ${say.length(value)}, change`"
      @click="begin()"
    >
      <span class="number">
        <i v-if="chosen" aria-hidden="true">◇</i><b v-else aria-hidden="true">=</b>
        <span class="figure">{{ say.length(value) }}</span>
      </span>
      <span v-if="says" class="small second says">{{ says }}</span>
    </button>
    <span v-else class="still">
      <span class="number">
        <span aria-hidden="true">=</span> <span class="figure">{{ say.length(value) }}</span>
      </span>
      <span v-if="says" class="small second says">{{ says }}</span>
    </span>
    <span v-if="!open && was != null && Math.abs(was - value) > 1e-4" class="was small"
      >was {{ say.length(was) }}</span
    >
  </div>
</template>

<style scoped>
.size {
  position: absolute;
  z-index: 2;
  transform: translate(-50%, -50%);
  white-space: nowrap;
}
.size.open {
  z-index: 5;
}
button,
.still {
  display: block;
  min-height: 26px;
  padding: 1px 7px;
  border: 0;
  background: var(--sheet);
  color: var(--ink);
  line-height: 1.5;
}
button {
  border-bottom: 2px dashed transparent;
  cursor: pointer;
}
button,
.still,
.number {
  display: flex;
  align-items: baseline;
  justify-content: center;
  gap: 0 5px;
}
.upright button,
.upright .still {
  flex-direction: column;
  align-items: center;
  padding-inline: 2px;
}
.upright .says {
  line-height: 1;
}
button i {
  color: var(--ochre-text);
  font-style: normal;
}
button .figure {
  font-size: 1.12rem;
  font-weight: 700;
  border-bottom: 1.5px dashed var(--ochre);
}
button:hover,
button:focus-visible {
  background: var(--deep-wash);
}
.still {
  color: var(--second);
}
input {
  min-height: 2.2rem;
  padding: 2px 9px;
  border: 2px solid var(--deep);
  background: var(--sheet);
  color: var(--ink);
  font-size: 1.12rem;
}
.wrong input {
  border-color: var(--bad);
}
.above {
  position: absolute;
  left: 50%;
  bottom: calc(100% + 4px);
  width: max-content;
  max-width: 24rem;
  padding: 4px 9px;
  transform: translateX(-50%);
  background: var(--panel);
  border: 1px solid var(--line);
  color: var(--ink);
  white-space: normal;
}
.beside {
  display: block;
}
.above.under {
  top: calc(100% + 4px);
  bottom: auto;
}
.above b {
  color: var(--deep);
}
.above .bad {
  color: var(--bad);
}
.was {
  position: absolute;
  top: 100%;
  left: 50%;
  padding: 0 5px;
  transform: translateX(-50%);
  background: var(--ochre-wash);
  color: var(--ochre-text);
}
.size:not(.upright) .was {
  top: 50%;
  left: calc(100% + 2px);
  transform: translateY(-50%);
}
</style>
