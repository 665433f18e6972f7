<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import { useAnswer } from '../../../foundation/useAnswer'
import ProblemNote from '../../../parts/ProblemNote.vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'

/** What an item is to teach: its outcomes from the school’s list, and the way to choose them. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()

const MOST = 20
const SHOWN = 60
const outcomes = useAnswer(() => questions.courseOutcomes(props.edition))
const all = computed(() => outcomes.data.value ?? [])
const tied = computed(() =>
  props.item.outcomes.map((code) => all.value.find((one) => one.code === code) ?? { code, words: '', removed: true }),
)
const isOpen = ref(false)
const chosen = ref<string[]>([])
const sought = ref('')
const { version, overTheirs } = usePinned(props.item.version)
/** Those that say what is looked for, and what is chosen already. */
const offered = computed(() => {
  const words = sought.value.trim().toLowerCase()
  return all.value.filter(
    (one) =>
      chosen.value.includes(one.code) ||
      (!one.removed && `${one.code} ${one.words} ${one.subject}`.toLowerCase().includes(words)),
  )
})
const tie = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/tie-outcomes')
const same = computed(
  () => JSON.stringify([...chosen.value].sort()) === JSON.stringify([...props.item.outcomes].sort()),
)
const request = computed(() =>
  !isOpen.value || same.value || chosen.value.length > MOST
    ? null
    : { item: props.item.id, outcomes: chosen.value, version: version.value },
)
const reach = useReach(request, tie.preview)

function open(): void {
  chosen.value = [...props.item.outcomes]
  version.value = props.item.version
  sought.value = ''
  isOpen.value = true
}
/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(tie.problem.value)
  void save()
}
async function save(): Promise<void> {
  if (!request.value) return
  await tie.run(request.value).then(
    () => (isOpen.value = false),
    () => undefined,
  )
}
</script>

<template>
  <section v-if="tied.length || (canChange && all.length)" class="outcomes" aria-label="Outcomes">
    <template v-if="!isOpen">
      <p v-if="tied.length" class="second">After it, students should be able to:</p>
      <ul v-if="tied.length">
        <li v-for="one in tied" :key="one.code">
          <b>{{ one.code }}</b> {{ one.words || 'is not among the school’s outcomes' }}
          <span v-if="one.removed && one.words" class="second">(no longer in the school’s list)</span>
        </li>
      </ul>
      <p v-if="canChange">
        <button type="button" class="word-button" @click="open">
          {{ tied.length ? 'Change its outcomes' : 'Choose its outcomes' }}
        </button>
      </p>
    </template>
    <form v-else class="editor" aria-label="Its outcomes" @submit.prevent="save" @keydown.esc.stop="isOpen = false">
      <p class="line">
        <span>After it, students should be able to:</span>
        <WordField v-model="sought" label="Find an outcome" placeholder="find one" />
      </p>
      <ul class="choices">
        <li v-for="one in offered.slice(0, SHOWN)" :key="one.code">
          <TickField v-model="chosen" :value="one.code" :label="`${one.code} ${one.words}`" />
        </li>
        <li v-if="offered.length === 0" class="second">None of the school’s outcomes says “{{ sought }}”.</li>
        <li v-else-if="offered.length > SHOWN" class="second">
          And {{ offered.length - SHOWN }} more: find one by a word of it.
        </li>
      </ul>
      <ProblemNote v-if="tie.problem.value" :problem="tie.problem.value">
        <v-btn v-if="tie.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
      </ProblemNote>
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="!request || tie.busy.value">Set its outcomes</v-btn>
        <v-btn @click="isOpen = false">Leave it as it is</v-btn>
        <span class="small" role="status">{{
          chosen.length > MOST ? `An item can have up to ${MOST} outcomes.` : reach
        }}</span>
      </p>
    </form>
  </section>
</template>

<style scoped>
.outcomes {
  display: grid;
  gap: var(--space-3);
}
ul {
  list-style: none;
  display: grid;
  gap: var(--space-2);
}
.choices {
  max-height: 240px;
  overflow: auto;
  max-width: 90ch;
}
</style>
