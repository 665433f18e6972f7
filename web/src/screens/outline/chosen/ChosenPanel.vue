<script setup lang="ts">
import { computed, ref, shallowRef, toRef } from 'vue'
import { type Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { useAnswer } from '../../../foundation/useAnswer'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import CommandPanel from '../../../parts/CommandPanel.vue'
import { changesOf } from '../../dates/dateCells'
import ChosenEditor from './ChosenEditor.vue'
import { type Act, type Asked, actWords, countedOf, itemsOf, requestOf } from './chosenActs'
import type { Row } from '../outlineRows'
import { questions } from '../../../foundation/api/questions'

/** Several rows are changed at once: what it would do stands there before it is done, and is undone as one. */
const props = defineProps<{
  edition: number
  chosen: Row[]
  rows: Row[]
  sections: Schemas['OutlineSection'][]
}>()
const emit = defineEmits<{ done: []; close: [] }>()
const levels = useLevels()

const edition = toRef(props, 'edition')
const change = useEditionCommand(edition, '/api/editions/{edition}/change-items')
const differ = useEditionCommand(edition, '/api/editions/{edition}/differ')
const steps = useEditionCommand(edition, '/api/editions/{edition}/set-conditions')
const act = ref<Act | null>(null)
const asked = shallowRef<Asked | null>(null)
const dates = useAnswer(() => questions.dates(props.edition))
/** What is asked, ready to be looked at or done. */
const request = computed(() => {
  const what = asked.value
  if (!what || !act.value) return null
  if ('conditions' in what)
    return { preview: (signal: AbortSignal) => steps.preview(what, signal), run: () => steps.run(what) }
  if (!('hold' in what)) {
    const body = requestOf(props.chosen, what)
    return { preview: (signal: AbortSignal) => change.preview(body, signal), run: () => change.run(body) }
  }
  if (!dates.data.value) return null
  const ids = itemsOf(props.chosen).map((item) => item.id)
  const body = { changes: changesOf(dates.data.value, ids, what.hold, 'hold', { value: true }) }
  return { preview: (signal: AbortSignal) => differ.preview(body, signal), run: () => differ.run(body) }
})
const reach = useReach(request, (one, signal) => one.preview(signal))
const problem = computed(() => change.problem.value ?? differ.problem.value ?? steps.problem.value)
const busy = computed(() => change.busy.value || differ.busy.value || steps.busy.value)
const counted = computed(() => countedOf(props.chosen, levels.value))
/** What is only ever done to items is not offered where there is none among them. */
const acts = computed(() =>
  (Object.keys(actWords) as Act[]).filter((one) => one === 'move' || itemsOf(props.chosen).length > 0),
)

function choose(which: Act): void {
  asked.value = null
  act.value = act.value === which ? null : which
}

const finish = (done: Promise<unknown>) =>
  done.then(
    () => {
      act.value = null
      emit('done')
    },
    () => undefined,
  )
/** What needs nothing more to be said is done as it is pressed, after its reach was shown. */
const now = (what: { published: boolean } | { remove: boolean }) => finish(change.run(requestOf(props.chosen, what)))
</script>

<template>
  <CommandPanel
    :label="`${counted} chosen`"
    :problem="problem"
    :reach="reach"
    :meant="act ? `Change ${counted}` : `Publish ${counted}`"
    :disabled="busy || (act !== null && !request)"
    @submit="act ? request && finish(request.run()) : now({ published: true })"
    @close="emit('close')"
  >
    <p class="line">
      <b>{{ counted }} chosen</b>
      <button type="button" class="word-button" :disabled="busy" @click="now({ published: false })">unpublish</button>
      <button
        v-for="one in acts"
        :key="one"
        type="button"
        class="word-button"
        :aria-pressed="act === one"
        @click="choose(one)"
      >
        {{ actWords[one] }}
      </button>
      <button type="button" class="word-button" :disabled="busy" @click="now({ remove: true })">remove</button>
    </p>
    <p v-if="act" class="line">
      <span>{{ actWords[act] }}:</span>
      <ChosenEditor
        :key="act"
        v-model="asked"
        :edition="edition"
        :act="act"
        :chosen="chosen"
        :rows="rows"
        :sections="sections"
      />
    </p>
  </CommandPanel>
</template>

<style scoped>
[aria-pressed='true'] {
  font-weight: 650;
}
</style>
