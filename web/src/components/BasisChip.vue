<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { nextTick, ref, useId, useTemplateRef } from 'vue'

/** One number of the basis; it opens in place to be changed. Escape and a click elsewhere close it. */
const props = defineProps<{ title: string; changed: boolean; problem: boolean }>()
const emit = defineEmits<{ closed: [] }>()
const open = ref(false)
const root = useTemplateRef('root')
const id = useId()

// What it opened itself, a list or a dialog, is its own.
onClickOutside(root, () => open.value && close(), { ignore: ['.el-overlay', '.el-popper'] })

async function toggle(): Promise<void> {
  if (open.value) return close()
  open.value = true
  await nextTick()
  root.value?.querySelector<HTMLElement>('.panel input, .panel button')?.focus()
}

function close(): void {
  open.value = false
  emit('closed')
}

function escape(event: KeyboardEvent): void {
  if (!open.value) return
  event.preventDefault()
  close()
  root.value?.querySelector<HTMLElement>('.chip')?.focus()
}
</script>

<template>
  <div ref="root" class="holder" @keydown.esc="escape">
    <button
      class="chip"
      :class="{ changed, problem }"
      :aria-expanded="open"
      :aria-controls="open ? id : undefined"
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
.holder .chip {
  display: grid;
  align-content: center;
  height: 100%;
  padding: 4px 14px;
  border: 0;
  border-block: 3px solid transparent;
  border-radius: 0;
  white-space: nowrap;
}
.holder .chip:hover,
.holder .chip[aria-expanded='true'] {
  background: var(--sheet);
}
.holder .chip:focus-visible {
  outline-offset: -3px;
}
.holder .chip.changed {
  border-bottom-color: var(--ochre);
}
.holder .chip.problem {
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
  width: min(22rem, calc(100vw - 24px));
  max-height: 72vh;
  padding: 14px 16px;
  overflow-y: auto;
  background: var(--panel);
  border: 1px solid var(--ink);
  border-top: 3px solid var(--deep);
}
@media (max-width: 860px) {
  .holder {
    position: static;
  }
  .panel {
    left: 12px;
    top: auto;
  }
}
</style>
