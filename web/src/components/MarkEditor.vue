<script setup lang="ts">
import { computed } from 'vue'

import type { Choices, Mark } from '../api/client'
import { LENGTH_TITLES, lengthsFor, operationsFor, typed } from '../marks'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { editText } from '../units'
import LengthField from './LengthField.vue'
import ProblemNote from './ProblemNote.vue'

/** One mark's questions; every answer makes a new mark. */
const props = defineProps<{ mark: Mark; field: string; choices: Choices }>()
const emit = defineEmits<{ change: [mark: Mark]; remove: [] }>()
const job = useJob()
const settings = useSettings()

const names = computed(() => lengthsFor(props.mark, props.choices.mark_lengths))
const operations = computed(() => operationsFor(props.mark.kind, props.choices.operations))
const problem = (name: string) => job.problemAt(`${props.field}.${name}`)

function change(values: Partial<Mark>): void {
  emit('change', { ...props.mark, ...values })
}

function shown(name: string): string {
  const { text, unit } = typed(props.mark.lengths[name])
  return text ? editText(text, unit, settings.unit) : ''
}

const setLength = (name: string, text: string) =>
  change({ lengths: { ...props.mark.lengths, [name]: { text, unit: settings.unit } } })

const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value

/** A count wants its distance at once: it starts from what is there, or from 10 mm. */
function setCount(name: 'columns' | 'rows', event: Event): void {
  const count = Math.max(1, Math.round(Number(valueOf(event)) || 1))
  const step = name === 'columns' ? 'dx' : 'dy'
  const has = typed(props.mark.lengths[step]).text
  const lengths =
    count > 1 && !has
      ? { ...props.mark.lengths, [step]: { text: '10', unit: 'mm' as const } }
      : props.mark.lengths
  change({ [name]: count, lengths })
}
</script>

<template>
  <form class="mark" @submit.prevent>
    <label class="wide">
      What is done
      <select
        class="boxed"
        :value="mark.operation"
        @change="change({ operation: valueOf($event) as Mark['operation'] })"
      >
        <option v-for="one in operations" :key="one" :value="one">{{ choices.operations[one] }}</option>
      </select>
      <ProblemNote v-if="problem('operation')" :problem="problem('operation')!" />
    </label>
    <template v-if="mark.kind === 'text'">
      <label class="wide">
        Text
        <input
          class="boxed"
          :value="mark.text"
          :data-field="`${field}.text`"
          :aria-invalid="problem('text') ? 'true' : undefined"
          @change="change({ text: valueOf($event) })"
        />
        <ProblemNote v-if="problem('text')" :problem="problem('text')!" />
      </label>
      <label>
        Font
        <select class="boxed" :value="mark.font" @change="change({ font: valueOf($event) })">
          <option v-for="font in choices.fonts" :key="font">{{ font }}</option>
        </select>
        <ProblemNote v-if="problem('font')" :problem="problem('font')!" />
      </label>
      <label>
        Set
        <select
          class="boxed"
          :value="mark.align"
          @change="change({ align: valueOf($event) as Mark['align'] })"
        >
          <option value="left">from the left</option>
          <option value="middle">about its middle</option>
          <option value="right">up to the right</option>
        </select>
      </label>
    </template>
    <LengthField
      v-for="name in names"
      :key="name"
      :field="`${field}.${name}`"
      :label="LENGTH_TITLES[name] ?? name"
      :text="shown(name)"
      :placeholder="name === 'bridge' ? 'as thick as the board' : name === 'radius' ? 'square' : undefined"
      @commit="setLength(name, $event)"
    />
    <label v-if="mark.kind === 'text' || mark.kind === 'rectangle'">
      Turned, degrees
      <input
        class="boxed figure"
        type="number"
        :value="mark.angle"
        :data-field="`${field}.angle`"
        @change="change({ angle: Number(valueOf($event)) || 0 })"
      />
    </label>
    <label>
      Copies across
      <input
        class="boxed figure"
        type="number"
        min="1"
        :value="mark.columns"
        :data-field="`${field}.columns`"
        @change="setCount('columns', $event)"
      />
      <ProblemNote v-if="problem('columns')" :problem="problem('columns')!" />
    </label>
    <label>
      Copies upwards
      <input
        class="boxed figure"
        type="number"
        min="1"
        :value="mark.rows"
        @change="setCount('rows', $event)"
      />
    </label>
    <label v-if="mark.kind !== 'line'" class="wide">
      The beam runs
      <select class="boxed" :value="mark.side" @change="change({ side: valueOf($event) as Mark['side'] })">
        <option value="auto">so that the size is kept</option>
        <option value="on">on the line</option>
        <option value="outside">outside the line</option>
        <option value="inside">inside the line</option>
      </select>
    </label>
    <button type="button" class="link small" @click="emit('remove')">take it away</button>
  </form>
</template>

<style scoped>
.mark {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  padding: 8px 18px 12px 29px;
  color: var(--second);
}
.wide {
  grid-column: 1 / -1;
}
.link {
  justify-self: start;
  padding-left: 0;
}
</style>
