<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import { type Pretend, type PretendFact, deedsOf, eyesOf } from './pretend'

/** What is made out to have happened to a pretend student: put together here, counted nowhere. */
const props = defineProps<{ edition: number; pretend: Pretend }>()
const levels = useLevels()

const route = useRoute()
const router = useRouter()
const lens = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'students', '')),
  () => api.GET('/api/editions/{edition}/students', { params: { path: { edition: props.edition } } }),
)
const items = computed(() => (lens.data.value?.items ?? []).filter((item) => deedsOf(item.kind).length > 0))
const adding = ref(false)
const item = ref<number | null>(null)
const what = ref('')
const score = ref(65)
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

const show = (facts: PretendFact[]) =>
  router.replace({ query: { ...route.query, as: eyesOf({ section: props.pretend.section, facts }) } })

async function add(): Promise<void> {
  if (!chosen.value || !what.value) return
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
    <span class="second">Suppose</span>
    <span v-if="pretend.facts.length === 0">nothing has happened yet</span>
    <span v-for="(fact, n) in pretend.facts" :key="`${fact.item}`" class="fact">
      {{ words(fact) }}
      <button type="button" class="word-button small" @click="show(pretend.facts.filter((_, at) => at !== n))">
        not so<span class="said-only">: {{ words(fact) }}</span>
      </button>
    </span>
    <form v-if="adding" class="form" @submit.prevent="add" @keydown.esc.stop="adding = false">
      <select v-model="item" class="wide" :aria-label="`With which ${levels.item.one}`" @change="choose">
        <option :value="null">– choose {{ levels.item.a }} –</option>
        <option v-for="one in items" :key="one.id" :value="one.id">{{ one.code }} {{ one.title }}</option>
      </select>
      <template v-if="chosen">
        <select v-model="what" aria-label="What happened">
          <option v-for="deed in deeds" :key="deed.what" :value="deed.what">{{ deed.words }}</option>
        </select>
        <label v-if="what === 'score'"
          ><input v-model.number="score" type="number" min="0" max="100" step="any" aria-label="Score" /> %</label
        >
        <select v-if="what === 'picked'" v-model="option" aria-label="Option">
          <option v-for="one in chosen.options" :key="one">{{ one }}</option>
        </select>
      </template>
      <v-btn type="submit" class="meant" :disabled="!chosen">Suppose so</v-btn>
      <button type="button" class="word-button" @click="adding = false">leave it</button>
    </form>
    <button v-else type="button" class="word-button" @click="adding = true">suppose something</button>
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
.fact {
  font-weight: 600;
}
</style>
