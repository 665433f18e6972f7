<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useLevels } from '../../foundation/levels'
import { useAnswer } from '../../foundation/useAnswer'
import FoundPassage from './FoundPassage.vue'
import { useSought } from './useSought'
import { type Find, findsOf, found } from './finding'
import { questions } from '../../foundation/api/questions'

/** What is written, and what is found by it: arrows choose, Enter goes there. */
const props = defineProps<{ edition: number }>()
const emit = defineEmits<{ gone: [] }>()

const levels = useLevels()
const route = useRoute()
const router = useRouter()
const outline = useAnswer(() => questions.outline(props.edition))
const people = useAnswer(() => questions.students(props.edition))
const written = ref('')
const at = ref(0)
const id = useId()
const all = computed(() => findsOf(props.edition, levels.value, outline.data.value, people.data.value))
const named = computed(() => found(all.value, written.value))
const sought = useSought(written, (words) => questions.search(props.edition, words))
/** What is found by what is written in it, after what is called so. */
const inTexts = computed<Find[]>(() =>
  sought.hits.value
    .filter(
      (hit) => hit.place !== 'title' && !named.value.shown.some((one) => one.kind === 'item' && one.code === hit.code),
    )
    .map((hit) => ({
      kind: 'text',
      code: hit.code,
      title: hit.title,
      note: hit.file ?? hit.unit,
      to: { name: 'outline', params: { edition: props.edition }, query: { row: `item-${hit.item}` } },
      hit,
    })),
)
const hits = computed(() => ({ shown: [...named.value.shown, ...inTexts.value], others: named.value.others }))
watch(written, () => (at.value = 0))

const kinds: Record<Find['kind'], string> = {
  item: '',
  group: '',
  student: 'as this student sees it',
  section: 'section',
  screen: 'screen',
  act: 'do it',
  text: '',
}

function move(by: number): void {
  const { length } = hits.value.shown
  if (length > 0) at.value = (at.value + by + length) % length
}

async function go(one: Find | undefined): Promise<void> {
  if (!one || typeof one.to !== 'object') return
  emit('gone')
  // The moment in view stays, and the section, unless another is found.
  const { at: moment, section } = route.query
  await router.push({
    ...one.to,
    query: { ...(moment && { at: moment }), ...(section && { section }), ...('query' in one.to ? one.to.query : {}) },
  })
}
</script>

<template>
  <section class="sheet" aria-label="Find">
    <v-text-field
      v-model="written"
      class="large"
      autofocus
      autocomplete="off"
      maxlength="100"
      aria-label="Find"
      aria-autocomplete="list"
      :aria-controls="`${id}-found`"
      :aria-activedescendant="hits.shown.length ? `${id}-${at}` : undefined"
      :placeholder="`${levels.item.a}, words in a text or file, a student, a screen, or what you want to do`"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go(hits.shown[at])"
      @keydown.esc.stop="emit('gone')"
    />
    <ul :id="`${id}-found`" role="listbox" aria-label="Found" class="found">
      <li
        v-for="(one, n) in hits.shown"
        :id="`${id}-${n}`"
        :key="`${one.kind} ${one.code} ${one.title} ${one.note}`"
        role="option"
        :aria-selected="n === at"
        :class="{ at: n === at }"
        @click="go(one)"
        @pointermove="at = n"
      >
        <span class="code">{{ one.code }}</span>
        <span>{{ one.title }}</span>
        <FoundPassage v-if="one.hit" :hit="one.hit" class="passage" />
        <span v-else class="small note">{{ one.note }}</span>
        <span class="small kind">{{ kinds[one.kind] }}</span>
      </li>
    </ul>
    <p class="small" role="status">
      <template v-if="outline.problem.value">{{ outline.problem.value.title }}</template>
      <template v-else-if="!outline.data.value">Reading the course …</template>
      <template v-else-if="sought.busy.value">Looking in texts and files …</template>
      <template v-else-if="sought.problem.value">{{ sought.problem.value.title }}</template>
      <template v-else-if="hits.shown.length === 0"
        >Nothing here is called “{{ written }}” or says so. Try a code, a word of a title or a name.</template
      >
      <template v-else-if="hits.others">and {{ hits.others }} more: write another word</template>
    </p>
  </section>
</template>

<style scoped>
.found {
  padding: var(--space-4) 0;
}
.found li {
  display: grid;
  grid-template-columns: 48px auto 1fr auto;
  align-items: baseline;
  gap: var(--space-4);
  min-height: 28px;
  padding: var(--space-2) var(--space-4);
  cursor: pointer;
}
.found .at {
  background: var(--faint-hair);
}
.code {
  color: var(--ink-2);
}
.passage {
  grid-column: 2 / -1;
}
.note {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
