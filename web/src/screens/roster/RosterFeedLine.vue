<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import ProblemNote from '../../parts/ProblemNote.vue'

/** The school’s roster feed: fetched by night, or now; what it would change waits here for somebody’s yes. */
const props = defineProps<{ term: number }>()
const emit = defineEmits<{ look: [file: File, fetch: number] }>()

const answer = useAnswer(() => questions.rosterFeed(props.term))
const latest = computed(() => answer.data.value?.latest ?? null)
const fetching = useSend(
  (term: number) => ask(api.POST('/api/terms/{term}/fetch-roster', { params: { path: { term } } })),
  [keys.term(props.term)],
)
const setting = useSend(
  (fetch: number, key) =>
    ask(api.POST('/api/school/set-aside-roster', { params: { header: once(key) }, body: { term: props.term, fetch } })),
  [keys.term(props.term)],
)
const lost = ref(false)
const busy = computed(() => fetching.busy.value || setting.busy.value)
const came: Record<string, string> = {
  imported: 'it has been imported',
  'set-aside': 'it was set aside',
  fetching: 'it is being fetched',
}

async function look(): Promise<void> {
  if (!latest.value) return
  const { fetch: number } = latest.value
  const file = await fetch(`/api/terms/${props.term}/roster-feed/${number}`).catch(() => null)
  lost.value = !file?.ok
  if (file?.ok) emit('look', new File([await file.blob()], 'roster feed.zip'), number)
}
</script>

<template>
  <div v-if="answer.data.value?.host" class="feed">
    <p class="line">
      <b>The school’s roster feed</b>
      <span v-if="!latest" class="second">nothing has been fetched for this term yet</span>
      <template v-else>
        <span class="second">{{ latest.words }}:</span>
        <span v-if="latest.state === 'waiting'">{{ latest.sentence }}.</span>
        <span v-else-if="latest.state === 'nothing'" class="second">{{ latest.sentence }}.</span>
        <span v-else-if="latest.state === 'failed'" class="accent">{{ latest.sentence }}.</span>
        <span v-else class="second">{{ came[latest.state] ?? latest.state }}</span>
      </template>
    </p>
    <p class="line">
      <template v-if="latest?.state === 'waiting'">
        <v-btn :disabled="busy" @click="look">Look at it</v-btn>
        <button type="button" class="word-button" :disabled="busy" @click="setting.run(latest.fetch)">
          set it aside
        </button>
      </template>
      <button type="button" class="word-button" :disabled="busy" @click="fetching.run(term)">
        {{ fetching.busy.value ? 'fetching …' : 'fetch it now' }}
      </button>
    </p>
    <p v-if="lost" class="accent">It could not be read just now. Try again.</p>
    <ProblemNote v-if="fetching.problem.value" :problem="fetching.problem.value" />
    <ProblemNote v-if="setting.problem.value" :problem="setting.problem.value" />
  </div>
</template>

<style scoped>
.feed {
  display: grid;
  gap: var(--space-4);
  padding: var(--space-5) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
b {
  font-weight: 600;
}
</style>
