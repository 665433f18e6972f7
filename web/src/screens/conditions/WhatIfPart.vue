<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useLook } from '../../foundation/commands/useLook'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted, joined } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'
import ScoreScale from '../../parts/condition/ScoreScale.vue'
import { type AskedScore, isLatched, scoresIn, withThreshold } from '../../parts/condition/thresholds'
import ProblemNote from '../../parts/ProblemNote.vue'
import type { Place } from './graph'

/** What would open and close for whom, if a threshold were another, a step were dropped or feedback were given. */
const props = defineProps<{ edition: number; place: Place; places: readonly Place[] }>()

const viewpoint = useViewpoint()
const named = (key: string) => props.places.find((one) => one.key === key)
const codeOf = (place: Place | undefined) => place?.code || place?.title || 'it'

interface Supposal {
  words: string
  score?: AskedScore & { end: 'min' | 'below'; of: Place }
  request?: Schemas['WhatIfRequest']
}
/** What can be supposed here. */
const supposals = computed<Supposal[]>(() => {
  const found: Supposal[] = []
  for (const score of scoresIn(props.place.gate)) {
    const of = named(score.item)
    if (!of) continue
    for (const end of ['min', 'below'] as const)
      if (score[end] !== null)
        found.push({ words: `another score is asked for in ${codeOf(of)}`, score: { ...score, end, of } })
  }
  const waits = new Set(props.place.standing.flatMap((one) => one.forFeedback.map((piece) => piece.piece)))
  for (const piece of waits)
    found.push({
      words: `${codeOf(props.places.find((one) => one.of === 'item' && one.id === piece))} is given back to everyone who waits`,
      request: { giveBack: piece },
    })
  const isWaitedFor = props.places.some((one) =>
    one.standing.some((here) => here.forFeedback.some((piece) => piece.piece === props.place.id)),
  )
  if (props.place.of === 'item' && isWaitedFor)
    found.push({ words: 'it is given back to everyone who waits', request: { giveBack: props.place.id } })
  if (props.place.of === 'item') found.push({ words: 'it is dropped', request: { drop: props.place.id } })
  return found
})
const asked = ref<number | null>(null)
const supposal = computed(() => (asked.value === null ? null : (supposals.value[asked.value] ?? null)))
const score = computed(() => supposal.value?.score ?? null)
const from = computed(() => (score.value ? score.value[score.value.end]! : 0))
const to = ref(0)
function turn(n: number): void {
  asked.value = asked.value === n ? null : n
  to.value = from.value
}

const reached = useAnswer(
  () =>
    questions.scoresReached(
      props.edition,
      score.value?.of.id ?? 0,
      { latest: score.value?.latest ?? false, latched: isLatched(props.place.gate ?? {}) },
      viewpoint.query.value,
    ),
  { enabled: computed(() => score.value !== null) },
)
const request = computed<Schemas['WhatIfRequest'] | null>(() => {
  if (!score.value) return supposal.value?.request ?? null
  if (to.value === from.value) return null
  const gate = withThreshold(props.place.gate, score.value.path, score.value.end, to.value)
  return { condition: { of: props.place.of, place: props.place.id, gate } }
})
const { answer, problem } = useLook(
  request,
  (body, signal) =>
    ask(
      api.POST('/api/editions/{edition}/what-if', {
        params: { path: { edition: props.edition }, query: viewpoint.query.value },
        body,
        signal,
      }),
    ),
  { keeps: true },
)
type Section = Schemas['WhatIfInSection']
/** What would open, close or become overdue, each with the students of every section. */
const lines = computed(() => {
  const found = new Map<string, { words: string; title: string; by: { section: Section; names: string[] }[] }>()
  for (const section of answer.value?.sections ?? [])
    for (const { code, title, opens, closes, overdue } of section.changes)
      for (const [verb, students] of [
        ['opens', opens],
        ['closes', closes],
        ['becomes overdue', overdue],
      ] as const) {
        if (students.length === 0) continue
        const words = `${code} ${verb} for`
        const line = found.get(words) ?? { words, title, by: [] }
        found.set(words, { ...line, by: [...line.by, { section, names: students.map((one) => one.name) }] })
      }
  return [...found.values()]
})
const total = (by: { names: string[] }[]) => by.reduce((sum, one) => sum + one.names.length, 0)
/** Of what would be wrong, the first few: it is often the same in each section. */
const FEW = 2
const shown = ref<string | null>(null)
const turnNames = (key: string) => (shown.value = shown.value === key ? null : key)
</script>

<template>
  <section v-if="supposals.length" class="what-if" aria-label="What if">
    <p class="ruled-head small">What if …</p>
    <ul class="ruled">
      <li v-for="(one, n) in supposals" :key="one.words + n">
        <button type="button" class="word-button" :aria-expanded="asked === n" @click="turn(n)">{{ one.words }}</button>
      </li>
    </ul>
    <template v-if="supposal">
      <template v-if="score">
        <ProblemNote v-if="reached.problem.value" :problem="reached.problem.value" :again="reached.refetch" />
        <p v-else-if="!reached.data.value" class="small second" role="status">Reading the scores …</p>
        <p v-else-if="reached.data.value.scored.length === 0" class="small second">
          Nobody in view has a score in {{ codeOf(score.of) }} yet.
        </p>
        <ScoreScale
          v-else
          v-model="to"
          :scored="reached.data.value.scored"
          :end="score.end"
          :from="from"
          :label="`The score in ${codeOf(score.of)}`"
        />
      </template>
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-else-if="request && !answer" class="small second" role="status">Working it out …</p>
      <div v-else-if="request && answer" role="status">
        <p class="small">
          <b>{{ lines.length ? 'Then' : 'Nothing opens or closes for anybody by it.' }}</b>
        </p>
        <ul v-if="lines.length" class="ruled small" aria-label="What would open and close">
          <li v-for="line in lines" :key="line.words">
            <p :title="line.title">{{ line.words }} {{ counted(total(line.by), 'student') }}</p>
            <p class="by">
              <button
                v-for="{ section, names } in line.by"
                :key="section.section"
                type="button"
                class="word-button"
                :aria-expanded="shown === `${line.words} ${section.section}`"
                @click="turnNames(`${line.words} ${section.section}`)"
              >
                <SectionKey :letter="section.letter" :name="section.name" short /> {{ names.length
                }}<span class="said-only">, by name</span>
              </button>
            </p>
            <template v-for="{ section, names } in line.by" :key="section.section">
              <p v-if="shown === `${line.words} ${section.section}`">{{ joined(names) }}</p>
            </template>
          </li>
        </ul>
        <p v-for="fault in answer.atFault.slice(0, FEW)" :key="fault" class="small fault">? {{ fault }}</p>
        <p v-if="answer.atFault.length > FEW" class="small fault" :title="answer.atFault.slice(FEW).join('\n')">
          and {{ answer.atFault.length - FEW }} more like this
        </p>
        <p class="small second">Nothing has been changed.</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.what-if {
  display: grid;
  gap: var(--space-3);
}
.ruled > li {
  padding: var(--space-2) 0;
}
.by {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-5);
}
.fault {
  color: var(--accent);
}
</style>
