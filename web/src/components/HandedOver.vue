<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'

import { api, type CutSetting, type Export, type Machine, type Outcome, type Stock } from '../api/client'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import { useWorkshop } from '../stores/workshop'
import NewSetting from './NewSetting.vue'
import ProblemNote from './ProblemNote.vue'
import ProofTag from './ProofTag.vue'

/** What was handed over before, byte for byte, and how it came out. What the machine was set to goes to its log. */
const props = defineProps<{ files: readonly Export[] | null }>()
const emit = defineEmits<{ told: [] }>()
const job = useJob()
const say = useSay()
const choices = useChoices()
const workshop = useWorkshop()
const { problem, tell } = useProblem()
const asking = ref(0)
const OUTCOMES: Outcome[] = ['cut well', 'not through', 'burnt', 'did not fit']
const FIRST = 5
const all = ref(false)
const shown = computed(() => (all.value ? props.files : props.files?.slice(0, FIRST)) ?? [])

/** Where the settings of what was told just now may be written down. */
const logging = shallowRef<{
  machine: Machine
  stock: Stock
  start: Partial<CutSetting>
  outcome: Outcome
} | null>(null)
const logged = ref('')

const answer = (file: Export, outcome: Outcome) =>
  tell(async () => {
    const basis = job.basis!
    await api.tellOutcome(file.id, outcome)
    asking.value = 0
    logged.value = ''
    emit('told')
    await Promise.all([choices.load(), workshop.load()])
    const machine = workshop.machines?.find(({ id }) => String(id) === basis.machine.id)
    const stock = workshop.boards?.find(({ id }) => String(id) === basis.stock.id)
    const result = choices.choices!.outcomes[outcome]
    if (!machine || !stock || !result) return
    const [before] = await api.settings(machine.id, stock.id, 'cut')
    logging.value = { machine, stock, start: { ...before, result }, outcome }
  })

/** By file, what would be otherwise if it were written today: an older release wrote it, and its bytes stay as they are. */
const today = ref<Record<number, string>>({})
const compare = (file: Export) =>
  tell(async () => {
    const { known, differs } = await api.today(file.id)
    today.value[file.id] = !known
      ? 'Which profile it was written by is not known.'
      : differs.length
        ? `Written today it would differ: ${differs.map((one) => say.sentence(one)).join(' ')}`
        : 'Written today it would be the same.'
  })

function written(): void {
  logging.value = null
  logged.value = 'Written to the settings log: it is offered the next time.'
}
</script>

<template>
  <section>
    <h2>Handed over before</h2>
    <p v-if="files?.length === 0" class="second small">
      Nothing yet. Every file that is written is kept here, byte for byte.
    </p>
    <ul>
      <li v-for="file in shown" :key="file.id">
        <span class="small">{{ say.moment(file.made) }}</span>
        <span class="what">
          revision {{ file.revision }}, {{ file.receiver || 'plain' }}
          <a class="small" :href="api.fileAddress(file.id)" :download="file.file_name">{{
            file.file_name
          }}</a>
          <ProofTag
            :proof="file.sha256 ? file.proof : null"
            unread="Not read back: an older release wrote it"
          />
          <template v-if="file.older">
            <ElButton
              v-if="!today[file.id]"
              link
              size="small"
              :aria-label="`What would be otherwise in ${file.file_name} today`"
              @click="compare(file)"
              >compare with today</ElButton
            >
            <span v-else class="small" role="status">{{ today[file.id] }}</span>
          </template>
        </span>
        <span v-if="file.outcome" class="outcome" :class="{ good: file.outcome === 'cut well' }">
          {{ file.outcome === 'cut well' ? '✓ ' : '' }}{{ file.outcome }}
          <ElButton
            link
            size="small"
            :aria-label="`Change how ${file.file_name} came out`"
            @click="asking = file.id"
            >change</ElButton
          >
        </span>
        <ElButton v-else-if="asking !== file.id" link type="primary" @click="asking = file.id"
          >how was it?</ElButton
        >
        <span
          v-if="asking === file.id"
          class="answers acts"
          role="group"
          :aria-label="`How did ${file.file_name} come out?`"
        >
          <ElButton v-for="word in OUTCOMES" :key="word" size="small" @click="answer(file, word)">{{
            word
          }}</ElButton>
        </span>
      </li>
    </ul>
    <ElButton v-if="(files?.length ?? 0) > FIRST && !all" link size="small" @click="all = true">
      {{ files!.length - FIRST }} more
    </ElButton>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="logging" class="card log">
      <p>
        <b>What was the {{ logging.machine.document.name }} set to?</b>
        <span class="second small">
          It goes to its log as “{{ logging.start.result }}”, and is offered the next time.</span
        >
      </p>
      <NewSetting
        :key="logging.outcome"
        :machine="logging.machine"
        :stock="logging.stock"
        operation="cut"
        :start="logging.start"
        @added="written"
        @cancel="logging = null"
      />
    </div>
    <p v-if="logged" class="small" role="status">{{ logged }}</p>
  </section>
</template>

<style scoped>
/* As high as what comes in its place: nothing above it moves. */
section {
  min-height: 4.6rem;
}
h2 {
  padding: 8px 0 3px;
}
li {
  display: grid;
  grid-template-columns: 8.5rem minmax(0, 1fr) auto;
  gap: 0 12px;
  align-items: baseline;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.what {
  overflow-wrap: anywhere;
}
.outcome {
  color: var(--ochre-text);
  font-weight: 600;
}
.outcome.good {
  color: var(--deep);
}
.answers {
  grid-column: 2 / -1;
}
.log {
  margin-top: 8px;
}
@media (max-width: 860px) {
  li {
    grid-template-columns: 1fr auto;
  }
  li > :first-child {
    grid-column: 1 / -1;
  }
}
</style>
