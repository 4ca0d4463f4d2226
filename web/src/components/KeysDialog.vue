<script setup lang="ts">
import { ref } from 'vue'

/** Every key that does something here. */
const emit = defineEmits<{ close: [] }>()
const open = ref(true)

const KEYS: [string, [string, string][]][] = [
  [
    'Anywhere',
    [
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z, Ctrl Y', 'Redo'],
      ['Esc', 'Unselect; in a field: bring back what was there'],
      ['Enter', 'In a field: save what was typed'],
      ['?', 'This list'],
      ['H', 'At a stop: what it decides, and what usually goes wrong'],
      ['N, P', 'At Prove: the next finding, the one before'],
      ['/', 'In a job: find a part, a step, a length, or something to do'],
      ['M', 'At Shape: measure between two things'],
    ],
  ],
  [
    'In a drawing',
    [
      ['Arrow keys', 'Move the view'],
      ['+  −', 'Zoom in, zoom out'],
      ['0', 'Show all'],
      ['Tab', 'To the next part'],
      ['Enter, Space', 'Select it'],
      ['Shift F10, Menu', 'What can be done with it'],
      [
        'Arrow keys, with steps selected',
        'Move them by the step chosen in the settings; with Shift ten times as far',
      ],
      ['Shift and click', 'One step more, or one less'],
      ['Ctrl C, Ctrl V', 'Copy the selected steps, paste them into the open part'],
      ['Delete', 'Remove the selected steps'],
    ],
  ],
  [
    'In lists',
    [
      ['Up, Down', 'The next choice'],
      ['Enter', 'Readings: on to the next one'],
      ['Alt Up, Alt Down', 'Move a step or a layer'],
    ],
  ],
]
</script>

<template>
  <ElDialog v-model="open" title="Keys" width="34rem" append-to-body @closed="emit('close')">
    <section v-for="[where, keys] in KEYS" :key="where">
      <h2>{{ where }}</h2>
      <dl>
        <template v-for="[key, what] in keys" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
    </section>
  </ElDialog>
</template>

<style scoped>
section + section {
  margin-top: 14px;
}
dl {
  display: grid;
  grid-template-columns: 12rem 1fr;
  gap: 4px 12px;
  margin-top: 4px;
}
kbd {
  font: inherit;
  font-weight: 600;
}
</style>
