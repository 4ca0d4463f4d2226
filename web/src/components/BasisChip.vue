<script setup lang="ts">
import { nextTick, onBeforeUnmount, ref, useId } from 'vue'

/** One number of the basis; it opens in place to be changed. Escape and a click elsewhere close it. */
const props = defineProps<{ title: string; changed: boolean; problem: boolean }>()
const emit = defineEmits<{ closed: [] }>()
const open = ref(false)
const root = ref<HTMLElement | null>(null)
const id = useId()

function outside(event: Event): void {
  const target = event.target as Element
  if (!root.value?.contains(target) && !target.closest('.el-overlay')) close() // a dialog that it opened is its own
}

async function toggle(): Promise<void> {
  if (open.value) return close()
  open.value = true
  document.addEventListener('pointerdown', outside)
  await nextTick()
  root.value?.querySelector<HTMLElement>('.panel input, .panel select, .panel button')?.focus()
}

function close(): void {
  open.value = false
  emit('closed')
  document.removeEventListener('pointerdown', outside)
}

function escape(): void {
  close()
  root.value?.querySelector<HTMLElement>('.chip')?.focus()
}

onBeforeUnmount(() => document.removeEventListener('pointerdown', outside))
</script>

<template>
  <div ref="root" class="holder" @keydown.esc="escape">
    <button
      class="chip"
      :class="{ changed, problem }"
      :aria-expanded="open"
      :aria-controls="id"
      @click="toggle"
    >
      <span class="small second">{{ props.title }}</span>
      <span class="value"><slot name="value" /></span>
    </button>
    <div v-if="open" :id="id" class="panel"><slot /></div>
  </div>
</template>

<style scoped>
.holder {
  position: relative;
  border-right: 1px dashed var(--line);
}
.chip {
  display: grid;
  align-content: center;
  height: 100%;
  padding: 4px 16px;
  border: 0;
  border-radius: 0;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
  white-space: nowrap;
}
.chip:hover,
.chip[aria-expanded='true'] {
  background: var(--sheet);
}
.chip:focus-visible {
  outline-offset: -3px;
}
.chip.changed {
  border-bottom-color: var(--ochre);
}
.chip.problem {
  border-bottom-color: var(--bad);
}
.value {
  display: flex;
  align-items: baseline;
  gap: 7px;
}
.panel {
  position: absolute;
  z-index: 20;
  top: 100%;
  left: 0;
  width: 300px;
  padding: 14px 16px;
  background: var(--panel);
  border: 1px solid var(--ink);
  border-top: 3px solid var(--deep);
}
</style>
