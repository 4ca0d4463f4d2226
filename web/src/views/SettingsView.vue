<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'

import { Problem } from '../api/client'
import TitleLine from '../components/TitleLine.vue'
import { useProblem } from '../composables/useProblem'
import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { optionsOf } from '../kit/options'
import PickField from '../kit/PickField.vue'
import TextField from '../kit/TextField.vue'
import { useSession } from '../stores/session'
import { useSettings, type ThemeChoice } from '../stores/settings'
import { MM_PER_INCH, type Finest, type Unit } from '../units'

/** How this browser shows things, and what others see as the maker's name. */
const session = useSession()
const settings = useSettings()
const say = useSay()
const { problem, tell } = useProblem()
const saved = ref(false)

const UNITS = [
  { value: 'mm', label: 'Millimetres' },
  { value: 'in', label: 'Inches' },
]
const FRACTIONS = [
  { value: '0', label: 'Never' },
  { value: '8', label: 'To 1/8' },
  { value: '16', label: 'To 1/16' },
  { value: '32', label: 'To 1/32' },
  { value: '64', label: 'To 1/64' },
]
const PAPERS = optionsOf(['A4', 'A3', 'A5', 'Letter'])
const THEMES = [
  { value: '', label: 'As the system' },
  { value: 'light', label: 'Light' },
  { value: 'dim', label: 'Dark' },
]
const LANGUAGES = ['', 'en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL', 'sv-SE', 'es-ES', 'it-IT', 'pl-PL']
/** Each with its own name in its own language, and a number and a day as it writes them. */
const languages = computed(() =>
  LANGUAGES.map((code) => {
    const locale = code || navigator.language
    const name = new Intl.DisplayNames([locale], { type: 'language' }).of(locale) ?? locale
    const number = new Intl.NumberFormat(locale).format(3.06)
    const day = new Date().toLocaleDateString(locale, { day: 'numeric', month: 'short', year: 'numeric' })
    return { value: code, label: code ? name : `As the browser (${name})`, detail: `${number}, ${day}` }
  }),
)

const KEYS = [
  { value: 'Alt', label: 'Alt' },
  { value: 'Control', label: 'Ctrl' },
  { value: 'Shift', label: 'Shift' },
]
const nudgeProblem = shallowRef<Problem | null>(null)
const MOST_NUDGE_MM = 100
function setNudge(text: string): void {
  const mm = Number(text.replace(',', '.')) * (settings.unit === 'in' ? MM_PER_INCH : 1)
  if (mm > 0 && mm <= MOST_NUDGE_MM) settings.nudgeMm = mm
  else
    nudgeProblem.value = new Problem(
      'not-a-length',
      `“${text}” is not a step to move by.`,
      `Type a number above 0 and up to ${say.short(MOST_NUDGE_MM)} ${say.unit}.`,
      'nudge',
      422,
    )
}

async function rename(name: string): Promise<void> {
  saved.value = await tell(() => session.rename(name))
}
</script>

<template>
  <div>
    <TitleLine />
    <main id="main" tabindex="-1">
      <h1>Settings</h1>
      <section class="card">
        <h2>Numbers</h2>
        <PickField
          label="Unit"
          :options="UNITS"
          :model-value="settings.unit"
          @update:model-value="settings.unit = $event as Unit"
        />
        <PickField
          label="Inches as fractions, where a length is one"
          :options="FRACTIONS"
          :model-value="String(settings.finest)"
          help="All other lengths stay decimals. Fractions can be typed whichever you choose."
          @update:model-value="settings.finest = Number($event) as Finest"
        />
        <ChoiceField
          label="Language of numbers and dates"
          :options="languages"
          :model-value="settings.locale"
          help="Both 3.06 and 3,06 can be typed whichever you choose."
          @update:model-value="settings.locale = $event"
        />
        <p class="second">
          A board looks like this: <span class="figure">{{ say.length(3.06) }} {{ say.unit }}</span
          >, a side like this: <span class="figure">{{ say.short(119.85625) }} {{ say.unit }}</span
          >.
        </p>
      </section>
      <section class="card">
        <h2>Drawing</h2>
        <TextField
          field="nudge"
          label="An arrow key moves a step by"
          :text="say.short(settings.nudgeMm)"
          :unit="settings.unit"
          :problem="nudgeProblem"
          @commit="setNudge"
          @clear="nudgeProblem = null"
        />
        <PickField
          v-model="settings.freeKey"
          label="While dragging, this key leaves the grid and everything else a step would lie on"
          :options="KEYS"
        />
      </section>
      <section class="card">
        <h2>Paper</h2>
        <PickField v-model="settings.paper" label="Job sheets and proofs are printed on" :options="PAPERS" />
      </section>
      <section class="card">
        <h2>Look</h2>
        <PickField
          label="Theme"
          :options="THEMES"
          :model-value="settings.themeChoice"
          @update:model-value="settings.themeChoice = $event as ThemeChoice"
        />
      </section>
      <section class="card">
        <h2>You</h2>
        <TextField
          field="shown"
          label="Name that others see"
          words
          :most="40"
          :text="session.session?.shown ?? ''"
          :problem="problem"
          :help="`You sign in as ${session.session?.name}; that stays.`"
          @commit="rename"
          @clear="problem = null"
        />
        <p v-if="saved" class="small second" role="status">Saved.</p>
      </section>
      <p class="small second">
        Unit, numbers and theme are kept in this browser; the name is kept with your account.
      </p>
    </main>
  </div>
</template>

<style scoped>
main {
  display: grid;
  gap: 14px;
  max-width: 40rem;
  margin: 0 auto;
  padding: 22px 24px;
}
main:focus {
  outline: none;
}
h1 {
  font-size: 1.5rem;
}
section {
  display: grid;
  gap: 12px;
}
</style>
