<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'

import { api, type Export, type Operation, type Task } from '../api/client'
import { whole } from '../api/tasks'
import ChangeList from '../components/ChangeList.vue'
import FilePicture from '../components/FilePicture.vue'
import HandedOver from '../components/HandedOver.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ProfileSentences from '../components/ProfileSentences.vue'
import ProofMark from '../components/ProofMark.vue'
import SavedFiles from '../components/SavedFiles.vue'
import StopLayout from '../components/StopLayout.vue'
import TaskNote from '../components/TaskNote.vue'
import TimesLedger from '../components/TimesLedger.vue'
import TodayNote from '../components/TodayNote.vue'
import { useBehind } from '../composables/useBehind'
import { useProblem } from '../composables/useProblem'
import { useReceiver } from '../composables/useReceiver'
import { WORKS } from '../formats'
import { useSay } from '../composables/useSay'
import { save } from '../download'
import { saveAction } from '../saveAction'
import { useChoices } from '../stores/choices'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'

/** One strong action for the job's own machine; the picture is the file, the ledger says what its receiver gets. */
const job = useJob()
const choices = useChoices()
const say = useSay()
const settings = useSettings()
const to = useReceiver()
const { receiver, another, whom, machine, profile, changed, inside, current, unreadable } = to
const number = ref(0)
const looked = ref<Operation | null>(null)
const busy = ref(false)
const made = shallowRef<Export[] | null>(null)
/** What was saved just now: gone with the next change of the job. */
const saved = shallowRef<readonly Export[]>([])
const writing = shallowRef<Task | null>(null)
let left = false
onUnmounted(() => (left = true))
const { problem: unwritten, tell } = useProblem()
const problem = computed(() => unwritten.value ?? to.problem.value)

const format = computed(() => profile.value?.format ?? 'svg')
const files = computed(() => inside.value?.files ?? [])
const file = computed(() => files.value[Math.min(number.value, files.value.length - 1)] ?? null)
const sheets = computed(() => job.design!.sheets)
watch(receiver, () => (number.value = 0))

const { behind, changed: nowBehind } = useBehind()
/** No file is written of what is never cut there. */
const refused = computed(() => unreadable.value?.code === 'never-on-machine')

/** The proof is of the whole job: a file without some of it is told apart. */
const lacks = computed(() => (inside.value?.left_out ?? []).map((one) => WORKS[one]))

/** Of another machine of the workshop: the job as it is planned there. */
const planned = computed(() => inside.value?.planned ?? null)

const action = computed(() =>
  saveAction({
    format: choices.formatName(format.value),
    files: files.value.length,
    whom: whom.value,
    planned: Boolean(planned.value),
    current: current.value,
    lacks: lacks.value,
    held: Boolean(behind.value) || refused.value,
    state: job.proofState,
    fits: Boolean(job.fresh?.fits),
    share: job.proofTask ? ` ${say.number(100 * job.proofTask.progress, 0)} %` : '',
  }),
)

/** The job may be another one, or closed, by the time that an answer comes. */
const load = () =>
  tell(async () => {
    const id = job.design?.id
    if (id === undefined) return
    const found = await api.exports(id)
    if (job.design?.id === id) made.value = found
  })
onMounted(load)
onMounted(choices.load)
watch(
  () => job.design?.moves,
  () => {
    saved.value = []
    void load()
  },
)

async function write(): Promise<void> {
  busy.value = true
  await tell(async () => {
    // What was measured meanwhile is shown first: the next press saves all the same.
    if (await nowBehind()) return
    const { name } = profile.value!
    const given = { ...profile.value!, name: name === 'Plain' ? machine.value.name : name }
    const { id } = job.design!
    const ask = () => api.export(id, format.value, given, another.value)
    const written = await whole(ask, { watch: (now) => (writing.value = now), unwanted: () => left })
    for (const one of written ?? []) save(api.fileAddress(one.id), one.file_name)
    if (job.design?.id === id) saved.value = written ?? []
    if (job.design?.id === id) job.design = { ...job.design, handed: new Date().toISOString() }
  })
  await load()
  busy.value = false
}

const sheetPage = (form: 'html' | 'pdf') =>
  api.jobSheetAddress(job.design!.id, settings.style, form, settings.paper)
</script>

<template>
  <StopLayout
    title="Hand over"
    :about="sheets.length ? `${sheets.length} sheet${sheets.length === 1 ? '' : 's'}` : 'nothing to cut yet'"
  >
    <div class="out">
      <section class="first">
        <ElButton
          class="strong"
          :type="action.strong ? 'primary' : 'default'"
          size="large"
          :loading="busy"
          :disabled="!profile || !sheets.length || !files.length || action.waits"
          @click="write"
          >{{ action.words }}</ElButton
        >
        <div class="facts">
          <template v-if="another !== null">
            <p v-if="planned">
              <b>Planned anew for the {{ planned.machine }}</b
              >, {{ planned.kind === 'router' ? 'tool' : 'kerf' }} {{ say.length(planned.kerf) }} {{ say.unit
              }}{{ planned.tool ? `, ${planned.tool}` : '' }};
              {{ files.length > 1 ? 'each file' : 'the file' }} is proved when it is saved
            </p>
            <p v-for="one in planned?.findings ?? []" :key="one.why" class="ochre">
              {{ say.sentence(one.why) }} {{ say.sentence(one.fix) }}
            </p>
          </template>
          <p v-else-if="refused" class="bad">No file is written of it: see below.</p>
          <p v-else-if="job.fresh?.fits && !job.fresh.provided">
            <b :class="behind ? 'ochre' : 'good'">{{
              behind ? 'The plan is proved for older figures' : '✓ The plan is proved'
            }}</b>, {{ say.moment(job.fresh.at) }}; {{ files.length > 1 ? 'each file' : 'the file' }} is read
            back when it is saved
          </p>
          <p v-else-if="job.fresh" class="ochre">
            {{ say.sentence(job.fresh.sentence) }}.
            <RouterLink v-if="job.fresh.findings.length" :to="{ name: 'prove' }"
              >Look at {{ job.fresh.findings.length }} thing{{
                job.fresh.findings.length === 1 ? '' : 's'
              }}
              at Prove</RouterLink
            >
          </p>
          <p v-else-if="action.waits" class="second">
            Being proved.
            <ElButton link type="primary" :disabled="!files.length" @click="write"
              >Save it without a proof</ElButton
            >
          </p>
          <TodayNote v-if="behind" :behind="behind" />
          <p v-if="lacks.length" class="ochre">
            Not in {{ files.length > 1 ? 'these files' : 'this file' }}: {{ lacks.join(', ') }}. The plan that
            is proved has all of it.
          </p>
          <p v-for="one in inside?.not_held ?? []" :key="one.field" class="ochre">
            {{ say.sentence(one.why) }} {{ one.fix }}
          </p>
          <SavedFiles v-if="saved.length" :files="saved" />
          <p v-if="file" class="small second names">
            {{ file.name }}<template v-if="files.length > 1"> and {{ files.length - 1 }} more</template>
          </p>
          <p class="small second">
            <template v-if="receiver?.machine"
              >Lay the board in the machine’s {{ machine.origin }} corner.</template
            >
            <template v-else-if="inside"
              >The kerf is taken off here: paths lie half of it outside each edge.</template
            >
          </p>
        </div>
      </section>
      <ProblemNote v-if="problem && !problem.field" :problem="problem" />
      <ProblemNote v-if="unreadable" :problem="unreadable" />
      <TaskNote v-if="writing ?? to.task.value" :task="(writing ?? to.task.value)!" />
      <div class="middle">
        <div class="picture">
          <p class="caption">
            <b>In the file</b>
            <span v-if="file" class="second small">
              {{ say.size(file.width, file.height) }} {{ say.unit }}, about {{ say.time(file.seconds) }};
              {{ profile?.labels ? 'dotted lines' : 'dotted lines, names' }} and discs are not in it<template
                v-if="!current"
              >
                · as it was before the last change</template
              >
            </span>
            <ElSegmented
              v-if="files.length > 1"
              v-model="number"
              size="small"
              aria-label="File"
              :options="files.map((_, i) => ({ value: i, label: String(i + 1) }))"
            />
          </p>
          <FilePicture v-if="file" :file="file" :looked="looked" />
          <p v-else-if="!sheets.length" class="second">
            {{
              job.design!.parts.length
                ? 'No part has a place on a sheet: Lay out says why.'
                : 'Add parts at Shape: there is nothing to cut yet.'
            }}
          </p>
          <ElSkeleton v-else-if="!unreadable" animated :rows="6" />
        </div>
        <div class="side">
          <section>
            <h2>Job sheet</h2>
            <p class="small second">Sheet, parts to tick off, settings and checks, for beside the machine.</p>
            <p class="acts">
              <a :href="sheetPage('html')" target="_blank">Open</a>
              <a :href="sheetPage('pdf')" target="_blank">PDF, {{ settings.paper }}</a>
            </p>
          </section>
          <section>
            <h2>For someone else</h2>
            <ul>
              <li v-for="one in to.others.value" :key="one.id">
                <ElButton link type="primary" @click="to.choose(one.id)">{{ one.document.name }}</ElButton>
                <span class="small second">
                  {{ choices.formatName(one.document.format) }}, one file a {{ one.document.split
                  }}<template v-if="one.machine !== null">; a machine of the workshop</template>
                </span>
              </li>
              <li>
                <a :href="api.packedAddress(job.design!.id)" download>The whole job, packed</a>
                <span class="small second"
                  >design, what was measured, and files it uses, in one open file</span
                >
              </li>
            </ul>
          </section>
        </div>
      </div>
      <details v-if="planned?.changes.length" class="anew">
        <summary>What becomes otherwise on the {{ planned.machine }}</summary>
        <ChangeList :changes="planned.changes" />
      </details>
      <HandedOver :files="made" @told="load" />
    </div>
    <template #ledger>
      <ProofMark v-if="job.proofState !== 'waiting' && !job.fresh?.fits" />
      <section v-if="profile && (file || unreadable || !sheets.length)" class="gets">
        <h2>What {{ whom }} gets</h2>
        <p class="small second about">
          {{ receiver?.machine ? 'its own profile' : `the profile “${receiver?.document.name ?? ''}”`
          }}<b v-if="changed" class="ochre">, changed for this time only</b>
        </p>
        <ProfileSentences
          :profile="profile"
          :file="file"
          :problem="problem?.field ? problem : unreadable?.field && !refused ? unreadable : null"
          @change="profile = $event"
          @look="looked = $event"
        />
        <p class="acts save">
          <ElButton size="small" :disabled="!changed" :loading="to.busy.value" @click="to.keep"
            >Save to the profile</ElButton
          >
          <ElButton size="small" @click="to.keepAs">Save as new</ElButton>
          <ElButton v-if="changed" link size="small" @click="to.choose(receiver!.id)"
            >Back to the profile</ElButton
          >
        </p>
        <p v-if="file" class="sum">
          = about <b>{{ say.time(file.seconds) }}</b>
          <span class="small second">{{ inside?.times_rest_on }}</span>
        </p>
      </section>
      <ElSkeleton v-else-if="!problem" class="times" animated :rows="8" />
      <details v-if="job.fresh" class="more">
        <summary>Times, part by part</summary>
        <TimesLedger :proof="job.fresh" />
      </details>
    </template>
  </StopLayout>
</template>

<style scoped>
.out {
  display: flex;
  flex-direction: column;
  padding: 4px 22px 12px;
  overflow-y: auto;
}
.out > * {
  flex: none;
}
.first {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 20px;
  min-height: 6rem;
  padding-bottom: 8px;
}
.strong {
  min-width: 21rem;
  min-height: 3.6rem;
  padding-inline: 26px;
  font-size: 1.2rem;
  font-weight: 600;
}
.facts {
  flex: 1 1 16rem;
  align-self: start;
}
.good {
  color: var(--deep);
}
.bad {
  color: var(--bad);
}
.names {
  overflow-wrap: anywhere;
}
.out > .middle {
  display: grid;
  flex: 1 0 24rem;
  grid-template-columns: minmax(0, 1fr) 14rem;
  gap: 18px;
}
.picture {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.caption {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
}
.side {
  display: grid;
  align-content: start;
  gap: 12px;
}
.side li {
  display: grid;
  justify-items: start;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
.gets h2,
.gets .about {
  padding: 10px 18px 0;
}
.gets .about {
  padding: 0 18px 6px;
}
.save,
.sum {
  padding: 6px 18px;
}
.sum b {
  font-size: 1.2rem;
}
.times {
  padding: 14px 18px;
}
.more {
  border-top: 1px solid var(--line);
}
.more summary {
  padding: 6px 18px;
}
@media (max-width: 1100px) {
  .out > .middle {
    grid-template-columns: minmax(0, 1fr) 11rem;
  }
}
@media (max-width: 860px) {
  .out {
    display: block;
  }
  .out > .middle {
    grid-template-columns: minmax(0, 1fr);
  }
  .picture {
    grid-template-rows: auto 20rem;
  }
}
</style>
