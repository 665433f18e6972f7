<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import { amount } from '../../parts/amount'
import CommandPanel from '../../parts/CommandPanel.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import TickField from '../../parts/fields/TickField.vue'

/** What a lesson has really taken in a section: what that would move stands there before it is noted. */
const props = defineProps<{
  edition: number
  pace: Schemas['PaceAnswer']
  section: Schemas['PaceSection']
  place: number
}>()
const emit = defineEmits<{ close: []; shape: [field: 'pin' | 'length'] }>()
const levels = useLevels()

const lesson = computed(() => props.pace.lessons[props.place]!)
const run = computed(() => props.section.lessons.find((one) => one.place === props.place)!)
const took = ref<number | null>(run.value.took ?? run.value.length)
const done = ref(run.value.state !== 'begun')
const left = ref<number | null>(run.value.left ?? 1)
/** Lessons before it, in this section's order, of which nothing is noted yet. */
const before = computed(() =>
  props.section.lessons
    .slice(0, props.section.lessons.indexOf(run.value))
    .filter((one) => one.state === 'ahead' && !one.skipped && one.from !== null),
)
const withBefore = ref(false)
const confirm = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/confirm-taught')
const record = (one: Schemas['PaceRun'], taken: number | null, isDone: boolean, rest: number | null) => ({
  lesson: one.lesson,
  took: taken,
  done: isDone,
  left: rest,
  version: one.version,
})
const request = computed(() => {
  if (took.value === null || (!done.value && left.value === null)) return null
  return {
    section: props.section.id,
    lessons: [
      ...(withBefore.value ? before.value.map((one) => record(one, one.length, true, null)) : []),
      record(run.value, took.value, done.value, done.value ? null : left.value),
    ],
  }
})
const reach = useReach(request, confirm.preview)

async function send(what: { section: number; lessons: ReturnType<typeof record>[] } | null): Promise<void> {
  if (!what) return
  await confirm.run(what).then(
    () => emit('close'),
    () => undefined,
  )
}

const forget = () => send({ section: props.section.id, lessons: [record(run.value, null, false, null)] })
</script>

<template>
  <CommandPanel
    :label="`What ${levels.lesson.a} has taken`"
    :problem="confirm.problem.value"
    :reach="reach"
    meant="Mark as taught"
    :disabled="!request || confirm.busy.value"
    @submit="send(request)"
    @close="emit('close')"
  >
    <p class="line">
      <SectionKey :letter="section.letter" :name="section.name" />
      <span
        ><b>{{ lesson.code }} {{ lesson.title }}</b
        >, {{ run.classes }}, {{ run.starts?.words ?? 'without a place' }}: planned
        {{ amount(run.length, pace.unit) }}</span
      >
    </p>
    <p class="line">
      <span class="line">took <NumberField v-model="took" label="Took" :max="2000" /> {{ pace.unit }}</span>
      <OneOfField
        v-model="done"
        label="How it ended"
        :choices="[
          { value: true, title: 'and is done' },
          { value: false, title: 'and is not finished' },
        ]"
      />
      <span v-if="!done" class="line"><NumberField v-model="left" label="Left" :max="2000" /> left</span>
      <TickField
        v-if="before.length > 0"
        v-model="withBefore"
        :label="`and the ${before.length} before it, as planned`"
      />
    </p>
    <template #more>
      <v-btn v-if="run.version > 0" :disabled="confirm.busy.value" @click="forget">Clear what was noted</v-btn>
      <button type="button" class="word-button" @click="emit('shape', 'pin')">fix its date</button>
      <button type="button" class="word-button" @click="emit('shape', 'length')">change its length</button>
    </template>
  </CommandPanel>
</template>
