<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'
import { counted } from '../../foundation/words'
import CommandPanel from '../../parts/CommandPanel.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import TickField from '../../parts/fields/TickField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** A term like an earlier one, with its closures looked at one by one; or one with an ordinary week. */
const props = defineProps<{ terms: Schemas['TermPlace'][] }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()

const like = ref<number | null>(props.terms[0]?.term ?? null)
const years = ref(1)
const name = ref('')
const first = ref<string | null>(null)
const last = ref<string | null>(null)
const zone = ref(props.terms[0]?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone)
const marks = ref<(Schemas['MarkAhead'] & { kept: boolean })[]>([])
/** The first day that was typed: what is proposed moves with it. */
const begins = ref<string | null>(null)

const ahead = useAnswer(() => questions.termAhead(like.value ?? 0, years.value, begins.value), {
  enabled: computed(() => like.value !== null),
})
watch(
  () => ahead.data.value,
  (proposed) => {
    if (!proposed || like.value === null) return
    if (begins.value === null) name.value = proposed.name
    first.value = proposed.first
    last.value = proposed.last
    zone.value = proposed.zone
    marks.value = proposed.marks.map((mark) => ({ ...mark, kept: mark.kind === 'closure' }))
  },
  { immediate: true },
)
watch(first, (date) => {
  if (like.value !== null && date && date !== ahead.data.value?.first) begins.value = date
})
watch([like, years], () => (begins.value = null))

const kept = computed(() => (like.value === null ? [] : marks.value.filter((mark) => mark.kept)))
const request = computed<Schemas['MakeTermRequest'] | null>(() =>
  name.value.trim() && first.value && last.value
    ? {
        name: name.value,
        zone: zone.value,
        first: first.value,
        last: last.value,
        like: like.value,
        marks: kept.value.map(({ kind, first, last, name, runs, periods }) => ({
          id: null,
          version: 0,
          gone: false,
          kind,
          first,
          last,
          name,
          runs,
          periods: periods as unknown as Schemas['DayMark']['periods'],
        })),
      }
    : null,
)
const { run, busy, problem } = useSend(
  (body: Schemas['MakeTermRequest'], key) =>
    ask(api.POST('/api/school/make-term', { params: { header: once(key) }, body })),
  [keys.places],
)
const reach = computed(() =>
  like.value === null
    ? 'It has Monday to Friday and no periods yet: they come next, in its calendar.'
    : `It has ${ahead.data.value?.alike ?? 'the same week'}, and ${
        kept.value.length ? `${counted(kept.value.length, 'mark')} in its calendar` : 'nothing marked yet'
      }.`,
)

async function make(): Promise<void> {
  const made = request.value && (await run(request.value))
  if (made && made.term !== null) await router.push({ name: 'calendar', params: { term: made.term } })
}
</script>

<template>
  <CommandPanel
    label="New term"
    :problem="problem ?? ahead.problem.value"
    :reach="reach"
    meant="Make the term"
    :disabled="busy || !request"
    @submit="make"
    @close="emit('close')"
  >
    <p class="line">
      <span>A new term</span>
      <ChoiceField
        v-model="like"
        label="Which term it is like"
        :choices="[
          ...terms.map((one) => ({ value: one.term as number | null, title: `like ${one.name}`, note: one.dates })),
          { value: null, title: 'with an ordinary week' },
        ]"
      />
      <ChoiceField
        v-if="like !== null"
        v-model="years"
        label="How many years later"
        :choices="[
          { value: 1, title: 'a year later' },
          { value: 2, title: 'two years later' },
          { value: 3, title: 'three years later' },
          { value: 4, title: 'four years later' },
          { value: 5, title: 'five years later' },
        ]"
      />
    </p>
    <p class="line">
      <span>called</span>
      <WordField v-model="name" class="name" label="Name of the term" placeholder="Autumn term 2027" autofocus />
      <span>from</span>
      <DateField v-model="first" class="dated" label="Its first day" />
      <span>to</span>
      <DateField v-model="last" class="dated" label="Its last day" :min="first ?? undefined" />
    </p>
    <ul
      v-if="like !== null && marks.length"
      class="ruled marks"
      aria-label="What was marked then, and when it would be now"
    >
      <li v-for="(mark, n) in marks" :key="n">
        <TickField v-model="mark.kept" :label="mark.name || 'special day'" />
        <DateField v-model="mark.first" class="dated" :label="`${mark.name}: from`" />
        <DateField
          v-if="mark.kind === 'closure'"
          v-model="mark.last"
          class="dated"
          :label="`${mark.name}: to`"
          :min="mark.first"
        />
        <span v-else class="small">{{ mark.kind === 'extra' ? 'extra day' : 'special day' }}</span>
        <span class="small">then {{ mark.words }}</span>
      </li>
    </ul>
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 1 260px;
}
/* With its year. */
.line .dated,
.marks .dated {
  width: 164px;
}
.marks {
  max-height: 260px;
  overflow: auto;
}
.marks li {
  display: grid;
  grid-template-columns: minmax(180px, 1fr) 164px 164px 1fr;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-2) 0;
}
</style>
