<script setup lang="ts">
import { useEventListener, useFileDialog } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'

import { api, type Part } from '../api/client'
import { placed } from '../composables/placingEdits'
import { useCopied } from '../composables/useCopied'
import type { usePlacing } from '../composables/usePlacing'
import ChoiceField from '../kit/ChoiceField.vue'
import { useJob } from '../stores/job'
import { useChoices } from '../stores/choices'
import { useSettings } from '../stores/settings'
import SeveralSteps from './SeveralSteps.vue'
import StepItem from './StepItem.vue'

/** What the selected part is made of, step by step: in order, the selected one open; dragged to another place in it. */
const props = defineProps<{
  part: Part
  placing: ReturnType<typeof usePlacing>
  picking: boolean
  lit: ReadonlySet<string>
}>()
const emit = defineEmits<{ pick: [] }>()
const job = useJob()
const choices = useChoices()
const settings = useSettings()
const { copied, copy, paste } = useCopied()
const list = ref<HTMLElement | null>(null)
const { open: askForFile, onChange } = useFileDialog({ accept: '.svg,.dxf', multiple: false, reset: true })

const ids = computed(() => props.part.steps.map(({ id }) => id))
const others = computed(() => job.design!.parts.filter(({ id }) => id !== props.part.id))
const purposes = computed(() =>
  choices.choices!.purposes.map(({ purpose, title, of }) => ({
    value: purpose,
    label: title,
    disabled: of === 'part' && !others.value.length,
  })),
)

/** All of a step beside the drawing; where it takes more room than there is, from its sentence on. Only the column scrolls. */
function bringIn(row: HTMLElement): void {
  const column = row.closest('aside')
  if (!column || column.scrollHeight <= column.clientHeight) {
    row.scrollIntoView({ block: 'nearest' })
    return
  }
  const [own, room] = [row.getBoundingClientRect(), column.getBoundingClientRect()]
  if (own.top < room.top || own.height > room.height) column.scrollTop += own.top - room.top
  else if (own.bottom > room.bottom) column.scrollTop += own.bottom - room.bottom
}

/** The open step stands beside the drawing, wherever it was picked. */
watch(
  () => job.picked.step,
  async (step) => {
    await nextTick()
    const row = step ? list.value?.querySelector('[aria-expanded="true"]')?.closest('li') : null
    if (row) bringIn(row)
  },
  { immediate: true },
)

/** By what it is for, at the end; its first field is there to be typed in. */
async function begin(purpose: string, made = ''): Promise<void> {
  const { unit } = settings
  const edits = await placed({ act: 'begin', part: props.part.id, steps: [], of: purpose, to: made, unit })
  if (!edits) return
  job.pick('step', props.part.id, edits[0]!.path.split('/').at(-1)!)
  await nextTick()
  list.value?.querySelector<HTMLElement>('form input:not([role])')?.focus()
}

/** A file is asked for first. */
function add(purpose: string): void {
  if (choices.choices!.purposes.some((one) => one.purpose === purpose && one.of === 'file')) askForFile()
  else void begin(purpose)
}

onChange((files) => {
  const file = files?.[0]
  if (file) void job.attempt(async () => begin('file', (await api.keepFile(file)).name))
})

/** The step that is on its way to another place, and the one that it would stand behind ("": in front). */
const carried = ref('')
const behind = ref<string | null>(null)
function over(event: DragEvent, id: string): void {
  if (!carried.value) return
  const edge = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const upper = event.clientY < edge.top + edge.height / 2
  const at = ids.value.indexOf(id)
  behind.value = upper ? (ids.value[at - 1] ?? '') : id
}
function dropped(): void {
  const [id, after] = [carried.value, behind.value]
  carried.value = ''
  behind.value = null
  const before = ids.value[ids.value.indexOf(id) - 1] ?? ''
  if (!id || after === null || after === id || after === before) return
  void job.edit({ verb: 'move', path: `parts/${props.part.id}/steps/${id}`, after })
}

const inField = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.matches('input, textarea, select')
useEventListener(window, 'keydown', (event) => {
  if (inField(event.target) || document.querySelector('.el-overlay-dialog')) return
  const command = event.ctrlKey || event.metaKey
  const steps = props.part.steps.filter(({ id }) => job.steps.includes(id))
  const key = event.key.toLowerCase()
  if (command && key === 'c' && steps.length && !window.getSelection()?.toString()) copy(steps)
  else if (command && key === 'v' && copied.value.length) void paste(props.part)
  else if (event.key === 'Delete' && steps.length) {
    const edits = steps.map(({ id }) => ({
      verb: 'drop' as const,
      path: `parts/${props.part.id}/steps/${id}`,
    }))
    void job.edit(...edits).then((done) => done && job.pick('part', props.part.id))
  } else return
  event.preventDefault()
})
</script>

<template>
  <section v-if="choices.choices">
    <h2>Steps of {{ part.title }}</h2>
    <SeveralSteps v-if="job.steps.length > 1" :part="part" :placing="placing" />
    <ol ref="list" @dragend="dropped" @drop.prevent @dragover.prevent>
      <StepItem
        v-for="step in part.steps"
        :key="step.id"
        :part="part"
        :step="step"
        :placing="placing"
        :picking="picking"
        :lit="lit"
        :class="{ behind: behind === step.id, front: behind === '' && step === part.steps[0] }"
        @pick="emit('pick')"
        @dragstart="carried = step.id"
        @dragover="over($event, step.id)"
      />
    </ol>
    <ChoiceField
      class="add"
      label="Add a step"
      hide-label
      placeholder="Next: a hole, an opening, lettering, a fold …"
      :options="purposes"
      :model-value="null"
      @update:model-value="add($event as string)"
    />
  </section>
</template>

<style scoped>
section {
  position: relative;
  padding-top: 6px;
}
h2 {
  padding: 10px 18px 4px;
}
ol {
  counter-reset: step;
}
.behind {
  box-shadow: inset 0 -3px var(--deep);
}
.front {
  box-shadow: inset 0 3px var(--deep);
}
.add {
  padding: 8px 18px;
  border-top: 1px solid var(--line);
}
</style>
