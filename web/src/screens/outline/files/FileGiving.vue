<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, toRef } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import { keys } from '../../../foundation/keys'
import { counted } from '../../../foundation/words'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import SectionSheets from './SectionSheets.vue'

/** How a file is given: to read, or a copy for each student; and the copies there are. */
const props = defineProps<{
  edition: number
  item: Schemas['ItemAnswer']
  file: Schemas['ItemFileAnswer']
  canChange: boolean
}>()

const client = useQueryClient()
const changing = ref(false)
const given = ref(props.file.given)
const copyName = ref(props.file.copyName)
const { version, overTheirs } = usePinned(props.file.version)
const give = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/give-file')
const ways = [
  { value: 'read', title: 'to read' },
  ...(props.item.kind === 'task' || props.item.kind === 'handout'
    ? [{ value: 'copy', title: 'to work in: each student gets a copy' }]
    : []),
  ...(props.file.file.kind === 'text'
    ? [{ value: 'together', title: 'to write in together, section by section' }]
    : []),
]
const request = computed(() =>
  !changing.value || (given.value === props.file.given && copyName.value === props.file.copyName)
    ? null
    : {
        item: props.item.id,
        file: props.file.file.id,
        given: given.value,
        copyName: given.value === 'copy' ? copyName.value : null,
        version: version.value,
      },
)
const reach = useReach(request, give.preview)
/** What a copy is called, with a student who is nobody's. */
const example = computed(() => {
  const stem = props.file.file.name.replace(/\.[^.]*$/, '')
  const ending = props.file.file.name.slice(stem.length)
  const words: Record<string, string> = {
    code: props.item.code,
    title: props.item.title,
    file: stem,
    section: props.item.sections[0]?.name ?? '',
    student: 'Ada Example',
  }
  return copyName.value.replace(/\{([^{}]*)\}/g, (all, word: string) => words[word] ?? all) + ending
})

/** How many students have worked in their copy. */
const worked = computed(() => props.file.copies.students - props.file.copies.asGiven)

function begin(): void {
  given.value = props.file.given
  copyName.value = props.file.copyName
  version.value = props.file.version
  changing.value = true
}

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(give.problem.value)
  void save()
}

async function save(): Promise<void> {
  if (!request.value) return
  await give.run(request.value).then(
    () => (changing.value = false),
    () => undefined,
  )
}

/** What the new file would do to the copies there are, before it is given to them. */
const follows = ref<Schemas['RefreshCopiesAnswer'] | null>(null)
const following = ref(false)
const problem = ref<Problem | null>(null)
async function follow(preview: boolean): Promise<void> {
  following.value = true
  problem.value = null
  const body = { item: props.item.id, file: props.file.file.id }
  const path = { edition: props.edition }
  await ask(
    preview
      ? api.POST('/api/editions/{edition}/refresh-copies', { params: { path, query: { preview } }, body })
      : api.POST('/api/editions/{edition}/refresh-copies', { params: { path, header: once() }, body }),
  ).then(
    (answer) => (follows.value = preview ? answer : null),
    (error: unknown) => (problem.value = problemOf(error)),
  )
  if (!preview) await client.invalidateQueries({ queryKey: keys.edition(props.edition) })
  following.value = false
}
</script>

<template>
  <form
    v-if="changing"
    class="giving"
    :aria-label="`How ${file.file.name} is given`"
    @submit.prevent="save"
    @keydown.esc.stop="changing = false"
  >
    <OneOfField v-model="given" label="It is there" :choices="ways" />
    <template v-if="given === 'copy'">
      <p class="line">
        <span>Name each copy</span>
        <WordField v-model="copyName" class="name" label="Name of the copies" :maxlength="120" />
      </p>
      <p class="small second">
        Such as “{{ example }}”. <code>{code}</code>, <code>{title}</code>, <code>{file}</code>,
        <code>{section}</code> and <code>{student}</code> stand for what they say.
      </p>
    </template>
    <ProblemNote v-if="give.problem.value" :problem="give.problem.value">
      <v-btn v-if="give.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || give.busy.value">{{
        { copy: 'Give each a copy', together: 'Give it to write in together' }[given] ?? 'Give it to read'
      }}</v-btn>
      <v-btn @click="changing = false">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
  <div v-else class="giving">
    <p class="small line">
      <span class="second">
        <template v-if="file.given === 'read'">Students read it.</template>
        <template v-else-if="file.given === 'together'"
          >Each section has a sheet to write in together, starting from this file.</template
        >
        <template v-else-if="file.copies.students === 0"
          >Each student gets a copy the first time they open this.</template
        >
        <template v-else>
          Each student gets a copy. {{ counted(file.copies.students, 'student has', 'students have') }} one;
          {{ worked === 0 ? 'nobody has worked in it yet' : counted(worked, 'has worked', 'have worked') + ' in it' }}.
        </template>
      </span>
      <button
        v-if="canChange"
        type="button"
        class="word-button small"
        :aria-label="`Change how ${file.file.name} is given`"
        @click="begin"
      >
        change
      </button>
    </p>
    <SectionSheets v-if="file.given === 'together'" :item="item" />
    <template v-if="canChange && file.copies.behind > 0">
      <p v-if="!follows" class="small line">
        <span>
          {{ counted(file.copies.behind, 'copy', 'copies') }} that nobody has worked in
          {{ file.copies.behind === 1 ? 'is' : 'are' }} still of the file that stood here before.
        </span>
        <button type="button" class="word-button small" :disabled="following" @click="follow(true)">
          give them this one
        </button>
      </p>
      <template v-else>
        <p class="small">{{ follows.sentence }}</p>
        <p class="ways">
          <v-btn class="meant" :disabled="following" @click="follow(false)">Give them this file</v-btn>
          <v-btn @click="follows = null">Leave them as they are</v-btn>
        </p>
      </template>
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.giving {
  display: grid;
  gap: var(--space-2);
}
.name {
  width: min(420px, 100%);
}
</style>
