<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Recipe } from '../api/client'
import { useDraft } from '../composables/useDraft'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import { boxOf } from '../geometry/pictured'
import PlainField from '../kit/PlainField.vue'
import { useChoices } from '../stores/choices'
import { useWorkshop } from '../stores/workshop'
import { usualMachine } from '../workshopChoice'
import DraftSheets from './DraftSheets.vue'
import ProblemNote from './ProblemNote.vue'
import RecipePicture from './RecipePicture.vue'
import RecipeSentence from './RecipeSentence.vue'
import StandingPicture from './StandingPicture.vue'
import StartBasis from './StartBasis.vue'

/** A recipe as a drawing with its sizes on it; what it makes and needs beside it; one action. */
const props = defineProps<{ recipe: Recipe }>()
const router = useRouter()
const say = useSay()
const workshop = useWorkshop()
const choices = useChoices()
const draft = useDraft(props.recipe)
const { kept, found } = draft
const { problem, tell } = useProblem()
const starting = ref(false)

const boards = computed(() => workshop.boards ?? [])
if (!boards.value.some(({ id }) => id === kept.value.stock)) kept.value.stock = boards.value[0]?.id ?? 0
if (!workshop.machines?.some(({ id }) => id === kept.value.machine)) {
  kept.value.machine = usualMachine(workshop.machines ?? [])
}
const board = computed(() => boards.value.find(({ id }) => id === kept.value.stock) ?? null)
const titles = computed(() =>
  Object.fromEntries(props.recipe.settings.map(({ name, title }) => [name, title])),
)
/** What the fields show: as typed, its unit named where another is shown. */
const texts = computed(() =>
  Object.fromEntries(
    props.recipe.settings.map(({ name, kind }) => {
      const typed = kept.value.answers[name] ?? ''
      return [name, kind === 'length' && typed ? say.edit(typed, kept.value.unit as 'mm' | 'in') : typed]
    }),
  ),
)

const PICTURE = { width: 330, height: 200 }
const standing = computed(() => ({ panels: found.value?.panels ?? [], flat: found.value?.flat ?? [] }))
const scale = computed(() => {
  const [left, low, right, top] = boxOf(standing.value)
  return right > left ? Math.min(PICTURE.width / (right - left), PICTURE.height / (top - low)) : 1
})

function drop(setting: string, mm: number): void {
  draft.dragged.value = { setting, mm }
  draft.answer(setting, say.short(mm))
  void draft.compute().then(() => (draft.dragged.value = null))
}

function drag(setting: string, mm: number): void {
  draft.dragged.value = { setting, mm }
  draft.answer(setting, say.short(mm))
}

/** Problems that no setting shows. */
const elsewhere = computed(() => {
  const one = draft.problem.value
  return one && !(found.value && props.recipe.settings.some(({ name }) => draft.problemAt(name))) ? one : null
})

/** Jobs that were started from it stay as they are. */
async function remove(): Promise<void> {
  await tell(async () => {
    await api.removeRecipe(props.recipe.name)
    await choices.reload()
    await router.push({ name: 'home' })
  })
}

async function start(): Promise<void> {
  starting.value = true
  await tell(async () => {
    const { answers, unit, name, stock, machine, fit } = kept.value
    const asked = {
      recipe: props.recipe.name,
      settings: answers,
      unit: unit as 'mm' | 'in',
      name,
      stock,
      machine,
      fit,
    }
    const { id } = await api.start(asked)
    draft.forget()
    await router.push({ name: 'shape', params: { id } })
  })
  starting.value = false
}
</script>

<template>
  <div class="recipe">
    <StartBasis
      :stock="kept.stock"
      :machine="kept.machine"
      :fit="kept.fit"
      :draft="found"
      @stock="kept.stock = $event"
      @machine="kept.machine = $event"
      @fit="kept.fit = $event"
    />
    <div class="middle">
      <main id="main" tabindex="-1">
        <h1 class="unseen">{{ recipe.title }}</h1>
        <RecipePicture
          v-if="found"
          :views="draft.views.value"
          :before="draft.before.value?.views ?? null"
          :texts="texts"
          :titles="titles"
          :problem-at="draft.problemAt"
          @begin="draft.begin"
          @drag="drag"
          @drop="drop"
          @answer="draft.answer"
          @track="draft.track"
        />
        <ElSkeleton v-else-if="!draft.problem.value" class="waiting" animated :rows="8" />
        <div class="sentences">
          <p class="small second">
            Drag a notch, use the arrow keys on it, or type a size: arithmetic and units are welcome. Alt
            leaves the grid of <span class="figure">{{ say.unit === 'mm' ? '1 mm' : '1/16 in' }}</span>.
          </p>
          <RecipeSentence
            :recipe="recipe"
            :answers="texts"
            :problem-at="draft.problemAt"
            @answer="draft.answer"
          />
          <ProblemNote v-if="elsewhere" :problem="elsewhere" />
        </div>
      </main>
      <aside aria-label="What it makes">
        <p v-if="recipe.own" class="small second">
          A recipe of the workshop’s own.
          <ElButton link size="small" @click="remove">Remove it from the shelf</ElButton>
        </p>
        <h2>Together</h2>
        <div class="together" :data-scale="scale">
          <StandingPicture v-if="found" :of="standing" :scale="scale" />
        </div>
        <DraftSheets
          v-if="found"
          :draft="found"
          :board="board?.document.name ?? ''"
          :left="board?.document.sheets ?? null"
        />
        <p v-for="one in found?.findings ?? []" :key="one.why" class="small ochre">
          {{ say.sentence(one.why) }}
        </p>
        <p v-if="found?.wants" class="small ochre">{{ say.sentence(found.wants) }}</p>
        <form @submit.prevent="start">
          <PlainField
            v-model="kept.name"
            label="Name"
            words
            :most="80"
            :problem="problem?.field === 'name' ? problem : null"
          />
          <div class="acts">
            <ElButton
              type="primary"
              size="large"
              native-type="submit"
              :loading="starting"
              :disabled="!found || !!draft.problem.value"
            >
              Start this {{ recipe.title.split(' ').at(-1)!.toLowerCase() }}
            </ElButton>
            <span class="small second">
              {{
                draft.problem.value
                  ? 'It cannot be made like this: mend it first.'
                  : 'Nothing is fixed by it: every size stays open.'
              }}
            </span>
          </div>
          <ProblemNote v-if="problem && problem.field !== 'name'" :problem="problem" />
        </form>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.recipe {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 25rem;
  min-height: 0;
}
main {
  display: grid;
  grid-template-rows: minmax(14rem, 1fr) auto;
  overflow-y: auto;
  min-height: 0;
}
main:focus {
  outline: none;
}
.waiting {
  padding: 40px 24px;
}
.picture {
  margin: 0 8px;
}
.sentences {
  padding: 4px 24px 14px;
}
aside {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 10px;
  padding: 12px 24px 16px;
  overflow-y: auto;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
.together {
  display: grid;
  justify-items: center;
  align-items: end;
  min-height: 205px;
}
/* What it leads to stays in sight in a low window. */
form {
  position: sticky;
  bottom: -16px;
  display: grid;
  gap: 10px;
  margin: 0 -24px -16px;
  padding: 8px 24px 16px;
  background: var(--panel);
}
.acts {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  gap: 14px;
}
@media (max-width: 1180px) {
  .middle {
    grid-template-columns: minmax(0, 1fr) 21rem;
  }
}
@media (max-width: 860px) {
  .middle {
    grid-template-columns: minmax(0, 1fr);
  }
  .picture {
    height: 32rem;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
