<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import { asksSentence, fileKinds } from '../../../parts/asks'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import TogetherField from './TogetherField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** What an item asks of a student: text, links and files, a log, or a tick. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const MOST = 12
const before = props.item.asks
const isTask = props.item.kind === 'task'
const { version, overTheirs } = usePinned(props.item.version)
const way = ref(before?.way ?? 'nothing')
const text = ref(before?.text ?? 'welcome')
const links = ref(before?.links ?? 'welcome')
const others = ref(before?.others ?? true)
const judged = ref(before?.judged ?? false)
const together = ref<string[] | null>(before?.together ? [...before.together] : null)
const files = ref((before?.files ?? []).map(({ what, kind }) => ({ what, kind })))
const ways = isTask
  ? [
      { value: 'work', title: 'something is handed in' },
      { value: 'log', title: 'a log is kept and handed in' },
      { value: 'tick', title: 'it is ticked off' },
    ]
  : [
      props.item.kind === 'handout'
        ? { value: 'work', title: 'something is handed in' }
        : { value: 'nothing', title: 'nothing' },
      { value: 'tick', title: 'it is ticked off' },
    ]
const parts = [
  { value: 'asked', title: 'asked for' },
  { value: 'welcome', title: 'welcome' },
  { value: 'no', title: 'not taken' },
]

const ask = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/ask-item')
const asks = computed<Schemas['AsksForm'] | null>(() =>
  way.value === 'nothing'
    ? null
    : way.value === 'tick'
      ? { way: 'tick', text: 'welcome', links: 'welcome', files: [], others: true }
      : {
          way: way.value,
          text: text.value,
          links: links.value,
          files: files.value,
          others: others.value,
          ...(together.value?.length ? { together: together.value } : {}),
          judged: judged.value,
        },
)
const inOrder = (one: Schemas['AsksForm'] | null) =>
  JSON.stringify(one && [one.way, one.text, one.links, one.files, one.others, one.together ?? [], one.judged ?? false])
const request = computed(() =>
  files.value.some((file) => file.what.trim() === '') ||
  together.value?.length === 0 ||
  inOrder(asks.value) === inOrder(before)
    ? null
    : { item: props.item.id, asks: asks.value, version: version.value },
)
const reach = useReach(request, ask.preview)

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(ask.problem.value)
  void save()
}

async function save(): Promise<void> {
  if (!request.value) return
  await ask.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <form class="editor" aria-label="What students hand in" @submit.prevent="save" @keydown.esc.stop="emit('close')">
    <OneOfField v-model="way" label="For this" :choices="ways" />
    <template v-if="way === 'work' || way === 'log'">
      <p class="line">
        <template v-if="way === 'work'">
          <span>Text is</span> <ChoiceField v-model="text" label="Text" :choices="parts" />
        </template>
        <span>{{ way === 'work' ? 'links are' : 'Links are' }}</span>
        <ChoiceField v-model="links" label="Links" :choices="parts" />
      </p>
      <ul v-if="files.length" class="files" aria-label="Files asked for">
        <li v-for="(file, at) in files" :key="at" class="line">
          <WordField
            v-model="file.what"
            class="what"
            label="What the file is"
            placeholder="the photograph"
            :maxlength="80"
          />
          <ChoiceField v-model="file.kind" :label="`What kind of file ${file.what} is`" :choices="fileKinds" />
          <button
            type="button"
            class="word-button small"
            :aria-label="`Remove ${file.what || 'this file'}`"
            @click="files.splice(at, 1)"
          >
            remove
          </button>
        </li>
      </ul>
      <p class="line">
        <button
          v-if="files.length < MOST"
          type="button"
          class="word-button"
          @click="files.push({ what: '', kind: null })"
        >
          Ask for a file by name
        </button>
        <TickField v-model="others" :label="files.length ? 'other files are welcome' : 'files are welcome'" />
      </p>
      <TickField
        v-if="item.hasRubric || judged"
        v-model="judged"
        label="students judge their own piece against the rubric first"
      />
      <TogetherField v-model="together" :edition="edition" />
    </template>
    <p class="small second">{{ asksSentence(asks) }}</p>
    <ProblemNote v-if="ask.problem.value" :problem="ask.problem.value">
      <v-btn v-if="ask.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || ask.busy.value">Set what is handed in</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>

<style scoped>
.files {
  list-style: none;
  display: grid;
  gap: var(--space-3);
}
.what {
  width: 240px;
  flex: none;
}
</style>
