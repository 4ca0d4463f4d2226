<script setup lang="ts">
import { computed } from 'vue'

import type { PieceRead, Truth } from '../api/client'
import { FITS } from '../rack'
import { useSay } from '../composables/useSay'
import PlainField from '../kit/PlainField.vue'

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
const say = useSay()
const length = (mm: number, digits = 4) => say.length(mm, digits)
const signed = (mm: number) => say.signed(mm)
const off = computed(() =>
  props.truth && props.read.kerf !== null ? Math.abs(props.read.kerf! - props.truth.kerf) : null,
)
</script>

<template>
  <section class="result" aria-live="polite" aria-label="Result">
    <template v-if="read.kerf !== null">
      <h2>Kerf</h2>
      <p class="figure big">
        {{ length(read.kerf!) }} <span class="second">{{ say.unit }}</span>
      </p>
      <p class="figure">{{ say.within(read.within) }} {{ say.unit }} (95 %)</p>
      <p class="small second">{{ say.sentence(read.because) }}</p>
    </template>
    <template v-else-if="read.fits">
      <h2>Fits</h2>
      <dl class="figure">
        <template v-for="name in FITS" :key="name">
          <dt>{{ name }}</dt>
          <dd>{{ signed(read.fits[name]) }}</dd>
        </template>
      </dl>
      <p class="small second">
        Each limit {{ say.within(read.within) }} {{ say.unit }}: {{ say.sentence(read.because) }}
      </p>
    </template>
    <p v-for="one in read.notes" :key="one" class="small ochre">{{ say.sentence(one) }}</p>

    <template v-if="practice === null">
      <PlainField v-model="note" label="Settings, or a note" words placeholder="power, speed, lens cleaned" />
      <ElButton link size="small" v-if="lastSet && !note" @click="note = say.sentence(lastSet)">
        As last set: {{ say.sentence(lastSet) }}
      </ElButton>
      <ElButton type="primary" @click="emit('keep')">Save in the notebook</ElButton>
    </template>
    <template v-else>
      <p class="small">From practice machine {{ practice }}: not for the notebook.</p>
      <p v-if="truth && off !== null" class="small truth">
        Its true kerf is <b class="figure">{{ length(truth.kerf) }}</b>: you are
        <b class="figure">{{ length(off) }}</b> off,
        {{
          off <= read.within
            ? 'within the uncertainty'
            : 'outside the uncertainty, as happens 5 times in 100'
        }}.
      </p>
      <p v-else-if="truth" class="small truth">
        Its fits change at
        <span v-for="(limit, i) in truth.limits" :key="i" class="figure"
          >{{ signed(limit) }}{{ i < 3 ? ', ' : '' }}</span
        >: from {{ feels[0] }} to {{ feels.at(-1) }}.
      </p>
      <ElButton v-else @click="emit('reveal')">{{
        read.kerf !== null ? 'Show its true kerf' : 'Show its true fits'
      }}</ElButton>
    </template>
    <ElButton link size="small" @click="emit('clear')">Clear the readings</ElButton>
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
.field {
  width: 100%;
}
.big {
  font-size: 1.75rem;
}
.big .second {
  font: 1rem var(--words);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 16px;
}
dd {
  text-align: right;
}
dt {
  font-family: var(--words);
}
.truth {
  padding: 4px 8px;
  background: var(--panel);
}
</style>
