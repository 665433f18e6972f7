<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import CommandPanel from '../../parts/CommandPanel.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** A course with nothing in it yet: its title, its first term, and what its lessons are counted in. */
const props = defineProps<{ terms: Schemas['TermPlace'][] }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()

const title = ref('')
/** Those that are not over, the next one first. */
const terms = computed(() => props.terms.filter((one) => !one.isOver).toReversed())
const term = ref<number | null>(terms.value[0]?.term ?? null)
const basis = ref<'meetings' | 'minutes'>('meetings')
const busy = ref(false)
const problem = ref<Problem | null>(null)
const whole = computed(() => title.value.trim() !== '' && term.value !== null)
let key = crypto.randomUUID()

async function make(): Promise<void> {
  if (busy.value || term.value === null) return
  busy.value = true
  problem.value = null
  try {
    const { edition } = await ask(
      api.POST('/api/me/make-course', {
        params: { header: once(key) },
        body: { title: title.value, term: term.value, basis: basis.value },
      }),
    )
    if (edition !== null) await router.push({ name: 'outline', params: { edition } })
  } catch (error) {
    problem.value = problemOf(error)
    if (problem.value.status > 0) key = crypto.randomUUID()
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <CommandPanel
    label="New course"
    :problem="problem"
    reach="You lead it. Nobody else sees it yet."
    meant="Make the course"
    :disabled="busy || !whole"
    @submit="make"
    @close="emit('close')"
  >
    <p class="line">
      <span>A new course called</span>
      <WordField v-model="title" class="title" label="What the course is called" autofocus />
      <span>for</span>
      <ChoiceField
        v-model="term"
        label="Its first term"
        placeholder="choose a term"
        :choices="terms.map((one) => ({ value: one.term, title: one.name, note: one.dates }))"
      />
      <span>with its lessons counted in</span>
      <ChoiceField
        v-model="basis"
        label="What its lessons are counted in"
        :choices="[
          { value: 'meetings', title: 'classes' },
          { value: 'minutes', title: 'minutes' },
        ]"
      />
    </p>
    <p v-if="terms.length === 0" class="second">There is no term ahead. The school office adds one.</p>
  </CommandPanel>
</template>

<style scoped>
.title {
  flex: 0 1 260px;
}
</style>
