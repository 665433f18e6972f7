<script setup lang="ts">
import { computed, ref, shallowRef, toRef } from 'vue'
import { type Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { useAnswer } from '../../../foundation/useAnswer'
import { useEditionCommand } from '../../../foundation/useEditionCommand'
import { useReach } from '../../../foundation/useReach'
import CommandPanel from '../../../parts/CommandPanel.vue'
import { changesOf } from '../../dates/dateCells'
import ChosenEditor from './ChosenEditor.vue'
import { type Act, actWords, requestOf } from './chosenActs'
import type { ItemRow, Row } from '../outlineRows'
import { questions } from '../../../foundation/api/questions'

/** Several items are changed at once: what it would do stands there before it is done, and is undone as one. */
const props = defineProps<{
  edition: number
  items: ItemRow[]
  rows: Row[]
  sections: Schemas['OutlineSection'][]
}>()
const emit = defineEmits<{ done: []; close: [] }>()
const levels = useLevels()

const edition = toRef(props, 'edition')
const change = useEditionCommand(edition, '/api/editions/{edition}/change-items')
const differ = useEditionCommand(edition, '/api/editions/{edition}/differ')
const act = ref<Act | null>(null)
const asked = shallowRef<Omit<Schemas['ChangeItemsRequest'], 'items'> | { hold: number[] } | null>(null)
const dates = useAnswer(() => questions.dates(props.edition))
/** What is asked, ready to be looked at or done. */
const request = computed(() => {
  const what = asked.value
  if (!what || !act.value) return null
  if (!('hold' in what)) {
    const body = requestOf(props.items, what)
    return { preview: (signal: AbortSignal) => change.preview(body, signal), run: () => change.run(body) }
  }
  if (!dates.data.value) return null
  const ids = props.items.map((item) => item.id)
  const body = { changes: changesOf(dates.data.value, ids, what.hold, 'hold', { value: true }) }
  return { preview: (signal: AbortSignal) => differ.preview(body, signal), run: () => differ.run(body) }
})
const reach = useReach(request, (one, signal) => one.preview(signal))
const problem = computed(() => change.problem.value ?? differ.problem.value)
const busy = computed(() => change.busy.value || differ.busy.value)
const counted = computed(() => levels.value.item.counted(props.items.length))

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
const now = (what: { published: boolean } | { remove: boolean }) => finish(change.run(requestOf(props.items, what)))
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
        v-for="(words, one) in actWords"
        :key="one"
        type="button"
        class="word-button"
        :aria-pressed="act === one"
        @click="choose(one)"
      >
        {{ words }}
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
        :items="items"
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
