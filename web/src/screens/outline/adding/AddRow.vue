<script setup lang="ts">
import { computed, nextTick, onMounted, ref, toRef, useTemplateRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import ProblemNote from '../../../parts/ProblemNote.vue'
import WhoseChoice from './WhoseChoice.vue'
import { type KindOfRow, kindUnder, kindsOfRow, placeUnder, readTitle, wordOf } from './newRow'
import { type Row, onlyIn } from '../outlineRows'

/** Something new, written where it belongs; its kind is a word one presses, or its letter before the title. */
const props = defineProps<{
  edition: number
  under: Row | null
  sections: Schemas['OutlineSection'][]
  asked?: KindOfRow
}>()
const emit = defineEmits<{ added: [kind: KindOfRow, title: string]; close: [] }>()
const levels = useLevels()

/** Kept outside: the row moves below what it has just added, and what is typed meanwhile goes with it. */
const written = defineModel<string>('written', { required: true })
const picked = ref<KindOfRow>(props.asked ?? (props.under ? kindUnder(props.under) : 'unit'))
const owner = ref<number | null>(null)
const read = computed(() => readTitle(written.value, levels.value))
const kind = computed(() => read.value.kind ?? picked.value)
const kinds = computed(() => (props.under ? kindsOfRow : (['unit'] as const)))
/** What comes into something of one section is of that section; a unit comes into nothing. */
const choices = computed(() => (kind.value !== 'unit' && props.under && onlyIn(props.under) ? [] : props.sections))
const field = useTemplateRef<{ $el: HTMLElement }>('field')
const form = useTemplateRef<HTMLElement>('form')
const edition = toRef(props, 'edition')
const addItem = useEditionCommand(edition, '/api/editions/{edition}/add-item')
const addLesson = useEditionCommand(edition, '/api/editions/{edition}/add-lesson')
const addUnit = useEditionCommand(edition, '/api/editions/{edition}/add-unit')
const all = [addItem, addLesson, addUnit]
const busy = computed(() => all.some((command) => command.busy.value))
const problem = computed(() => all.map((command) => command.problem.value).find(Boolean) ?? null)

onMounted(() => form.value?.scrollIntoView({ block: 'nearest' }))

function pick(one: KindOfRow): void {
  picked.value = one
  written.value = read.value.title
  field.value?.$el.querySelector('input')?.focus()
}

async function add(): Promise<void> {
  const { title } = read.value
  if (!title || busy.value) return
  const taken = written.value
  const as = kind.value
  const section = owner.value
  const place = props.under ? placeUnder(props.under, as) : { of: 'unit' as const, after: null }
  const done =
    place.of === 'unit'
      ? addUnit.run({ title, after: place.after, section })
      : place.of === 'lesson'
        ? addLesson.run({ unit: place.unit, title, classes: 1, after: place.after, section })
        : addItem.run({
            unit: place.unit,
            lesson: place.lesson,
            after: place.after,
            first: place.first,
            kind: as,
            purpose: ['page', 'link', 'handout'].includes(as) ? 'to-read' : 'practice',
            title,
            section,
          })
  written.value = ''
  await done.then(
    async () => {
      emit('added', as, title)
      await nextTick()
      field.value?.$el.querySelector('input')?.focus()
    },
    () => {
      written.value = taken + written.value
    },
  )
}
</script>

<template>
  <form ref="form" class="add" novalidate @submit.prevent="add" @keydown.esc.stop.prevent="emit('close')">
    <p class="line">
      <v-text-field
        ref="field"
        v-model="written"
        class="title"
        autofocus
        maxlength="220"
        autocomplete="off"
        :aria-label="`Title of the new ${wordOf(kind, levels)}`"
        :placeholder="`title of the new ${wordOf(kind, levels)}`"
      />
      <span class="kinds small" role="group" aria-label="Kind">
        <template v-for="(one, n) in kinds" :key="one"
          ><template v-if="n > 0"> · </template
          ><button type="button" :aria-pressed="one === kind" @click="pick(one)">
            {{ wordOf(one, levels) }}
          </button></template
        >
      </span>
      <WhoseChoice v-model="owner" :sections="choices" />
      <v-btn type="submit" class="meant" :disabled="!read.title || busy">Add the {{ wordOf(kind, levels) }}</v-btn>
      <button type="button" class="word-button small" @click="emit('close')">done</button>
    </p>
    <p v-if="kind !== 'unit' && kind !== 'lesson'" class="small">
      It starts unpublished. A letter before the title says what it is: “q: Which storey?” is a quiz.
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
  </form>
</template>

<style scoped>
.add {
  display: grid;
  gap: var(--space-2);
  padding: var(--space-4) 0 var(--space-5) var(--space-9);
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--ink);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  padding-left: var(--space-10);
}
.add > .small {
  padding-left: var(--space-10);
}
.title {
  width: 320px;
}
.kinds button[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
}
</style>
