<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useSend } from '../../foundation/useSend'
import CommandPanel from '../../parts/CommandPanel.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** A course with nothing in it yet: its title, its first term, and what its lessons are measured in. */
const props = defineProps<{ terms: Schemas['TermPlace'][] }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()

const title = ref('')
/** Those that are not over, the next one first. */
const terms = computed(() => props.terms.filter((one) => !one.isOver).toReversed())
const term = ref<number | null>(terms.value[0]?.term ?? null)
const basis = ref<'meetings' | 'minutes'>('meetings')
const request = computed<Schemas['MakeCourseRequest'] | null>(() =>
  title.value.trim() && term.value !== null ? { title: title.value, term: term.value, basis: basis.value } : null,
)
const { run, busy, problem } = useSend(
  (body: Schemas['MakeCourseRequest'], key) =>
    ask(api.POST('/api/me/make-course', { params: { header: once(key) }, body })),
  [keys.places],
)

async function make(): Promise<void> {
  const made = request.value && (await run(request.value))
  if (made && made.edition !== null) await router.push({ name: 'outline', params: { edition: made.edition } })
}
</script>

<template>
  <CommandPanel
    label="New course"
    :problem="problem"
    reach="You will lead it. Nobody else sees it yet."
    meant="Make the course"
    :disabled="busy || !request"
    @submit="make"
    @close="emit('close')"
  >
    <p class="line">
      <span>A new course called</span>
      <WordField v-model="title" class="title" label="Title of the course" autofocus />
      <span>for</span>
      <ChoiceField
        v-model="term"
        label="Its first term"
        placeholder="choose a term"
        :choices="terms.map((one) => ({ value: one.term, title: one.name, note: one.dates }))"
      />
      <span>with lessons measured in</span>
      <ChoiceField
        v-model="basis"
        label="What its lessons are measured in"
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
