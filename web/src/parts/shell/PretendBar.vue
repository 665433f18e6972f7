<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import { type Pretend, type PretendFact, deedsOf, eyesOf, factsOf } from './pretend'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import ChoiceField from '../fields/ChoiceField.vue'
import NumberField from '../fields/NumberField.vue'
import WordField from '../fields/WordField.vue'
import { questions } from '../../foundation/api/questions'

/** What is made out to have happened to a pretend student: put together here, counted nowhere. */
const props = defineProps<{ edition: number; pretend: Pretend }>()
const levels = useLevels()

const route = useRoute()
const router = useRouter()
const lens = useAnswer(() => questions.students(props.edition))
const items = computed(() => (lens.data.value?.items ?? []).filter((item) => deedsOf(item.kind).length > 0))
const adding = ref(false)
const item = ref<number | null>(null)
const what = ref('')
const score = ref<number | null>(65)
const option = ref('')
const chosen = computed(() => items.value.find((one) => one.id === item.value))
const deeds = computed(() => (chosen.value ? deedsOf(chosen.value.kind) : []))

function choose(): void {
  what.value = deeds.value[0]?.what ?? ''
  option.value = chosen.value?.options[0] ?? ''
}

function words(fact: PretendFact): string {
  const of = items.value.find((one) => one.id === fact.item)
  const deed = of && deedsOf(of.kind).find((one) => one.what === fact.what)
  if (!of || !deed) return 'something else'
  return `${of.code} ${of.title}: ${deed.words}${fact.value ? ` ${fact.value}${fact.what === 'score' ? ' %' : ''}` : ''}`
}

/** In a pretend section they are kept, by name, with what they are made out to have done. */
const here = computed(() => lens.data.value?.sections.find((one) => one.section === props.pretend.section))
const written = computed(() => factsOf(props.pretend.facts))
const name = ref(typeof route.query.named === 'string' ? route.query.named : '')
watch(
  () => here.value?.madeUp?.find((one) => one.facts === written.value)?.name,
  (known) => {
    if (known && !name.value) name.value = known
  },
  { immediate: true },
)
const kept = ref('')
watch(written, () => (kept.value = ''))
const makeUp = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/make-up-students')
async function keep(): Promise<void> {
  if (!here.value?.madeUp || !name.value.trim()) return
  const mine = { name: name.value.trim(), facts: written.value }
  const others = here.value.madeUp.filter((one) => one.name.toLowerCase() !== mine.name.toLowerCase())
  await makeUp.run({ section: here.value.section, students: [...others, mine], version: here.value.version }).then(
    () => (kept.value = mine.name),
    () => undefined,
  )
}

const show = (facts: PretendFact[]) =>
  router.replace({ query: { ...route.query, as: eyesOf({ section: props.pretend.section, facts }) } })

async function add(): Promise<void> {
  if (!chosen.value || !what.value || (what.value === 'score' && score.value === null)) return
  const value = what.value === 'score' ? `${score.value}` : what.value === 'picked' ? option.value : undefined
  // What is said of an item anew stands in place of what was said of it before.
  const others = props.pretend.facts.filter((fact) => fact.item !== chosen.value!.id)
  await show([...others, { item: chosen.value.id, what: what.value, ...(value !== undefined && { value }) }])
  adding.value = false
  item.value = null
}
</script>

<template>
  <section class="bar" aria-label="A pretend student">
    <span class="second">Made up:</span>
    <span v-if="pretend.facts.length === 0">nothing has happened yet</span>
    <span v-for="(fact, n) in pretend.facts" :key="`${fact.item}`" class="fact">
      {{ words(fact) }}
      <button type="button" class="word-button small" @click="show(pretend.facts.filter((_, at) => at !== n))">
        take out<span class="said-only">: {{ words(fact) }}</span>
      </button>
    </span>
    <form v-if="adding" class="form" @submit.prevent="add" @keydown.esc.stop="adding = false">
      <ChoiceField
        v-model="item"
        :label="`With which ${levels.item.one}`"
        :placeholder="`choose ${levels.item.a}`"
        :choices="items.map((one) => ({ value: one.id, title: `${one.code} ${one.title}` }))"
        @update:model-value="choose"
      />
      <template v-if="chosen">
        <ChoiceField
          v-model="what"
          label="What happened"
          :choices="deeds.map((deed) => ({ value: deed.what, title: deed.words }))"
        />
        <template v-if="what === 'score'"><NumberField v-model="score" label="Score" :max="100" /> %</template>
        <ChoiceField
          v-if="what === 'picked'"
          v-model="option"
          label="Option"
          :choices="chosen.options.map((one) => ({ value: one, title: one }))"
        />
      </template>
      <v-btn type="submit" class="meant" :disabled="!chosen">Try it</v-btn>
      <button type="button" class="word-button" @click="adding = false">cancel</button>
    </form>
    <button v-else type="button" class="word-button" @click="adding = true">make something up</button>
    <form v-if="here?.madeUp" class="form" @submit.prevent="keep">
      <WordField
        v-model="name"
        class="name"
        label="Name of the made-up student"
        placeholder="their name"
        :maxlength="60"
      />
      <v-btn type="submit" :disabled="!name.trim() || makeUp.busy.value">Keep them</v-btn>
      <span v-if="makeUp.problem.value" class="small accent" role="alert">{{ makeUp.problem.value.title }}</span>
      <span v-else-if="kept" class="small" role="status">{{ kept }} is kept as they are.</span>
    </form>
    <span class="small">Counted nowhere.</span>
  </section>
</template>

<style scoped>
.bar,
.form {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-6);
}
.bar {
  background: var(--wash);
  padding: var(--space-4) var(--space-6);
}
.name {
  flex: 0 0 150px;
}
.fact {
  font-weight: 600;
}
</style>
