<script setup lang="ts">
import { computed } from 'vue'

import type { PieceRead, Truth } from '../api/client'
import { FITS } from '../rack'
import { useSettings } from '../stores/settings'
import { inUnit, lengthText, signedText, withinText } from '../units'

/** What a test piece told, to be kept; or, from a practice machine, to be held against what it hides. */
const props = defineProps<{
  read: PieceRead
  feels: readonly string[]
  practice: number | null
  lastSet: string
  truth: Truth | null
}>()
const emit = defineEmits<{ keep: []; reveal: []; clear: [] }>()
const note = defineModel<string>('note', { required: true })
const settings = useSettings()
const length = (mm: number, digits = 4) => lengthText(mm, settings.unit, digits)
const signed = (mm: number) => signedText(mm, settings.unit)
const off = computed(() =>
  props.truth && props.read.kerf !== null ? Math.abs(props.read.kerf! - props.truth.kerf) : null,
)
</script>

<template>
  <section class="result" aria-live="polite" aria-label="Result">
    <template v-if="read.kerf !== null">
      <h2>Kerf</h2>
      <p class="figure big">
        {{ length(read.kerf!) }} <span class="second">{{ settings.unit }}</span>
      </p>
      <p class="figure">{{ withinText(read.within, settings.unit) }} in 95 of 100 cases</p>
      <p class="small second">{{ inUnit(read.because, settings.unit) }}</p>
    </template>
    <template v-else-if="read.fits">
      <h2>Fits</h2>
      <dl class="figure">
        <template v-for="name in FITS" :key="name">
          <dt>{{ name }}</dt>
          <dd>{{ signed(read.fits[name]) }}</dd>
        </template>
      </dl>
      <p class="small second">each limit {{ withinText(read.within, settings.unit) }}: {{ read.because }}</p>
    </template>
    <p v-for="one in read.notes" :key="one" class="small ochre">{{ inUnit(one, settings.unit) }}</p>

    <template v-if="practice === null">
      <label class="second small">
        Settings, or a note
        <input v-model="note" class="boxed" placeholder="power, speed, lens cleaned" />
      </label>
      <button v-if="lastSet && !note" class="link small" @click="note = inUnit(lastSet, settings.unit)">
        as last set: {{ inUnit(lastSet, settings.unit) }}
      </button>
      <button class="strong" @click="emit('keep')">Keep it in the notebook</button>
    </template>
    <template v-else>
      <p class="small">From practice machine {{ practice }}: nothing for the notebook.</p>
      <p v-if="truth && off !== null" class="small truth">
        Its kerf is <b class="figure">{{ length(truth.kerf) }}</b>: you are
        <b class="figure">{{ length(off) }}</b> off,
        {{ off <= read.within ? 'within what you said' : 'beyond what you said, as happens in 5 of 100' }}.
      </p>
      <p v-else-if="truth" class="small truth">
        Its hands feel a change at
        <span v-for="(limit, i) in truth.limits" :key="i" class="figure"
          >{{ signed(limit) }}{{ i < 3 ? ', ' : '' }}</span
        >: from {{ feels[0] }} to {{ feels.at(-1) }}.
      </p>
      <button v-else class="plain" @click="emit('reveal')">tell me what it hides</button>
    </template>
    <button class="link small" @click="emit('clear')">clear the readings</button>
  </section>
</template>

<style scoped>
.result {
  display: grid;
  justify-items: start;
  gap: 6px;
  margin: -12px -18px 0;
  padding: 14px 18px;
  background: var(--deep-wash);
  border-left: 3px solid var(--deep);
}
.result label {
  width: 100%;
}
.big {
  font-size: 26px;
}
.big .second {
  font: 14px var(--words);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 16px;
  margin: 0;
}
dd {
  margin: 0;
  text-align: right;
}
dt {
  font-family: var(--words);
}
.truth {
  padding: 4px 8px;
  background: var(--panel);
}
.link {
  padding-left: 0;
}
</style>
