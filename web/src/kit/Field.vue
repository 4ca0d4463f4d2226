<script setup lang="ts">
import { onMounted, onUpdated, ref, useId } from 'vue'

import type { Problem } from '../api/client'
import ProblemNote from '../components/ProblemNote.vue'

/** A label, its control, help and what is wrong with it. The control takes `id` from the slot; the rest is put on it here. */
const props = defineProps<{
  label: string
  hideLabel?: boolean
  /** Where the value goes, so that a problem finds its control. */
  field?: string
  help?: string
  problem?: Problem | null
  required?: boolean
  /** For a control that brings its own label. */
  group?: boolean
}>()
const emit = defineEmits<{ mend: [text: string] }>()

const id = useId()
const root = ref<HTMLElement | null>(null)

/** The kit's controls take no description of their own. */
function describe(): void {
  const control = root.value?.querySelector('input, textarea, [role="slider"], [role="radiogroup"]')
  if (!control) return
  const described = [props.help && `${id}-help`, props.problem && `${id}-problem`].filter(Boolean).join(' ')
  set(control, 'aria-describedby', described)
  set(control, 'aria-invalid', props.problem ? 'true' : '')
  set(control, 'data-field', props.field ?? '')
  set(control, 'aria-required', props.required ? 'true' : '')
}

function set(control: Element, name: string, value: string): void {
  if (value) control.setAttribute(name, value)
  else control.removeAttribute(name)
}

onMounted(describe)
onUpdated(describe)
</script>

<template>
  <div ref="root" class="field">
    <span v-if="group" :id="`${id}-label`" class="label" :class="{ unseen: hideLabel }">{{ label }}</span>
    <label v-else :for="id" class="label" :class="{ unseen: hideLabel }"
      >{{ label }}<span v-if="required" class="required">, required</span></label
    >
    <slot :id="id" />
    <span v-if="help" :id="`${id}-help`" class="help small second">{{ help }}</span>
    <ProblemNote v-if="problem" :id="`${id}-problem`" :problem="problem" @mend="emit('mend', $event)" />
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}
.label {
  display: block;
  margin-bottom: 2px;
  color: var(--second);
}
.label.unseen {
  margin: 0;
}
.required {
  font-size: 0.9rem;
}
.help {
  display: block;
  margin-top: 2px;
}
</style>
