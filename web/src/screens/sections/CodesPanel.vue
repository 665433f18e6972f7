<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { counted } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import DateField from '../../parts/fields/DateField.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import TickField from '../../parts/fields/TickField.vue'

/** Codes by which people join this section themselves, and those who wait to be let in. */
const props = defineProps<{ edition: number; section: number; name: string; last: string; today: string }>()
const emit = defineEmits<{ close: [] }>()

const answer = useAnswer(() => questions.sectionCodes(props.section), { refetchInterval: 15_000 })
const codes = computed(() => answer.data.value?.codes ?? [])
const waiting = computed(() => answer.data.value?.waiting ?? [])
const until = ref<string | null>(props.last)
const most = ref<number | null>(30)
const approve = ref(true)
const read = [keys.sectionCodes(props.section), keys.edition(props.edition)]
const path = () => ({ path: { section: props.section } })

const making = useSend(
  (body: Schemas['MakeSectionCodeRequest'], key) =>
    ask(api.POST('/api/sections/{section}/make-section-code', { params: { ...path(), header: once(key) }, body })),
  read,
)
const withdrawing = useSend(
  (body: Schemas['WithdrawSectionCodeRequest'], key) =>
    ask(api.POST('/api/sections/{section}/withdraw-section-code', { params: { ...path(), header: once(key) }, body })),
  read,
)
const answering = useSend(
  (body: Schemas['AnswerJoinsRequest'], key) =>
    ask(api.POST('/api/sections/{section}/answer-joins', { params: { ...path(), header: once(key) }, body })),
  read,
)
const said = ref('')
const busy = computed(() => making.busy.value || withdrawing.busy.value || answering.busy.value)
const problem = computed(() => making.problem.value ?? withdrawing.problem.value ?? answering.problem.value)

async function decide(who: readonly Schemas['WaitingLine'][], letIn: boolean): Promise<void> {
  const done = await answering.run({ waiting: who.map(({ id }) => id), letIn })
  if (done) said.value = `${done.sentence}.`
}
async function make(): Promise<void> {
  if (!until.value || most.value === null) return
  const made = await making.run({ until: until.value, most: most.value, approve: approve.value })
  if (made) said.value = `The new code is ${made.sectionCode}.`
}
</script>

<template>
  <aside class="codes" :aria-label="`Codes of ${name}`" @keydown.esc.stop.prevent="emit('close')">
    <p class="line head">
      <span>
        Whoever has a code joins {{ name }} at
        <b>{{ answer.data.value?.address.replace(/^https?:\/\//, '') }}</b>
      </span>
      <button type="button" class="word-button end" @click="emit('close')">close</button>
    </p>
    <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" :again="answer.refetch" />
    <template v-if="waiting.length">
      <p class="line ruled-head">
        <span>{{ counted(waiting.length, 'person waits', 'people wait') }} to be let in</span>
        <template v-if="waiting.length > 1">
          <button type="button" class="word-button" :disabled="busy" @click="decide(waiting, true)">let all in</button>
          <button type="button" class="word-button" :disabled="busy" @click="decide(waiting, false)">
            turn all away
          </button>
        </template>
      </p>
      <ul class="ruled">
        <li v-for="one in waiting" :key="one.id" class="waiting">
          <b>{{ one.name }}</b> <span class="second">{{ one.email }}</span>
          <span class="second">since {{ one.at.words }}</span>
          <span class="acts">
            <button type="button" class="word-button" :disabled="busy" @click="decide([one], true)">
              let in<span class="said-only">: {{ one.name }}</span>
            </button>
            <button type="button" class="word-button" :disabled="busy" @click="decide([one], false)">
              turn away<span class="said-only">: {{ one.name }}</span>
            </button>
          </span>
        </li>
      </ul>
    </template>
    <p v-if="answer.data.value && codes.length === 0" class="second">
      There is no code yet. One is for adults, or for a section that is on no roster.
    </p>
    <ul v-else class="ruled">
      <li v-for="code in codes" :key="code.id" class="code">
        <b>{{ code.code }}</b>
        <span class="second">{{ code.isOver ? 'no longer works' : `until ${code.until}` }}</span>
        <span class="second">{{ code.used }} of {{ code.most }} used</span>
        <span class="second">{{ code.approve ? 'a teacher lets them in' : 'they are in at once' }}</span>
        <button
          type="button"
          class="word-button"
          :disabled="busy"
          @click="withdrawing.run({ code: code.id }).then(() => (said = ''))"
        >
          withdraw<span class="said-only">: {{ code.code }}</span>
        </button>
      </li>
    </ul>
    <form class="line" novalidate @submit.prevent="make">
      <span>A new code for</span>
      <NumberField v-model="most" label="How many people can use it" :min="1" :max="500" />
      <span>people, until</span>
      <DateField v-model="until" label="Its last day" :min="today" :max="last" />
      <TickField v-model="approve" label="a teacher lets them in" />
      <v-btn type="submit" :disabled="busy || most === null || !until">Make it</v-btn>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="said" role="status">{{ said }}</p>
  </aside>
</template>

<style scoped>
.codes {
  display: grid;
  gap: var(--space-4);
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--ink);
  padding: var(--space-5) var(--space-7);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
.end,
.acts {
  margin-left: auto;
}
.acts {
  display: flex;
  gap: var(--space-5);
}
.waiting {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
  padding: var(--space-3) 0;
}
.code {
  display: grid;
  grid-template-columns: 130px 1fr 120px 170px auto;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
b {
  font-weight: 600;
}
.code b {
  letter-spacing: 0.06em;
}
@media (max-width: 800px) {
  .code {
    grid-template-columns: 1fr;
    gap: var(--space-2);
  }
}
</style>
