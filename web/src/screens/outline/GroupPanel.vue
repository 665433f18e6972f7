<script setup lang="ts">
import { computed, ref, toRef, useTemplateRef } from 'vue'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { usePinned } from '../../foundation/usePinned'
import { useReach } from '../../foundation/useReach'
import ProblemNote from '../../parts/ProblemNote.vue'
import { type Row, titleOf } from './outlineRows'
import { useInView } from './useInView'

/** A unit or a lesson opened in place: its title and length, and adding what belongs in it. */
const props = defineProps<{ row: Exclude<Row, { level: 'item' }>; edition: number; canChange: boolean }>()
const emit = defineEmits<{ close: []; remove: []; move: [by: -1 | 1] }>()

const panel = useTemplateRef<HTMLElement>('panel')
useInView(panel)
const edition = toRef(props, 'edition')
const title = ref(titleOf(props.row))
const classes = ref(props.row.level === 'lesson' ? props.row.lesson.classes : 0)
const read = props.row.level === 'unit' ? { ...props.row.unit } : { ...props.row.lesson }
const { version, overTheirs } = usePinned(read.version)
const lessonTitle = ref('')
const itemTitle = ref('')
const kind = ref('page')
const renameUnit = useEditionCommand(edition, '/api/editions/{edition}/rename-unit')
const changeLesson = useEditionCommand(edition, '/api/editions/{edition}/change-lesson')
const addLesson = useEditionCommand(edition, '/api/editions/{edition}/add-lesson')
const addItem = useEditionCommand(edition, '/api/editions/{edition}/add-item')
const request = computed(() =>
  props.row.level === 'lesson' && (title.value.trim() !== read.title || classes.value !== read.classes)
    ? { lesson: props.row.lesson.id, title: title.value, classes: classes.value, version: version.value }
    : null,
)
const reach = useReach(request, changeLesson.preview)
const problem = computed(
  () => [renameUnit, changeLesson, addLesson, addItem].map((one) => one.problem.value).find((one) => one) ?? null,
)

async function keep(): Promise<void> {
  const done =
    props.row.level === 'unit'
      ? renameUnit.run({ unit: props.row.unit.id, title: title.value, version: version.value })
      : request.value
        ? changeLesson.run(request.value)
        : Promise.resolve()
  await done.then(
    () => emit('close'),
    () => undefined,
  )
}

/** Knowingly over what somebody else wrote meanwhile. */
function useMine(): void {
  overTheirs(problem.value)
  void keep()
}

async function putLesson(): Promise<void> {
  const after = props.row.unit.lessons.at(-1)?.id ?? null
  await addLesson.run({ unit: props.row.unit.id, title: lessonTitle.value, classes: 1, after }).then(
    () => (lessonTitle.value = ''),
    () => undefined,
  )
}

async function putItem(): Promise<void> {
  const lesson = props.row.level === 'lesson' ? props.row.lesson.id : null
  const purpose = ['page', 'link', 'handout'].includes(kind.value) ? 'to-read' : 'practice'
  await addItem.run({ unit: props.row.unit.id, lesson, kind: kind.value, purpose, title: itemTitle.value }).then(
    () => (itemTitle.value = ''),
    () => undefined,
  )
}
</script>

<template>
  <div ref="panel" class="panel" :class="row.level" @keydown.esc.stop.prevent="emit('close')">
    <p v-if="!canChange" class="second">It can be read here, not changed.</p>
    <template v-else>
      <form class="line" novalidate @submit.prevent="keep">
        <label class="field-name" for="group-title">Title</label>
        <input id="group-title" v-model="title" type="text" class="title" maxlength="200" autocomplete="off" />
        <template v-if="row.level === 'lesson'">
          <label class="field-name" for="group-classes">Classes</label>
          <input id="group-classes" v-model.number="classes" type="number" min="0" max="200" />
        </template>
        <v-btn type="submit" class="meant">Keep</v-btn>
        <span class="small" role="status">{{ reach }}</span>
      </form>
      <ProblemNote v-if="problem" :problem="problem">
        <template v-if="problem.conflict">
          <p class="second">
            Now it says: {{ titleOf(row)
            }}<template v-if="row.level === 'lesson'">, {{ row.lesson.classes }} classes</template>.
          </p>
          <v-btn @click="useMine">Keep mine in its place</v-btn>
        </template>
      </ProblemNote>
      <form v-if="row.level === 'unit'" class="line" novalidate @submit.prevent="putLesson">
        <label class="field-name" for="new-lesson">A new lesson</label>
        <input id="new-lesson" v-model="lessonTitle" type="text" class="title" maxlength="200" autocomplete="off" />
        <v-btn type="submit" :disabled="!lessonTitle.trim() || addLesson.busy.value">Add the lesson</v-btn>
      </form>
      <form class="line" novalidate @submit.prevent="putItem">
        <label class="field-name" for="new-item">A new item</label>
        <select v-model="kind" aria-label="Kind">
          <option v-for="one in ['page', 'task', 'link', 'handout', 'quiz', 'discussion']" :key="one">{{ one }}</option>
        </select>
        <input id="new-item" v-model="itemTitle" type="text" class="title" maxlength="200" autocomplete="off" />
        <v-btn type="submit" :disabled="!itemTitle.trim() || addItem.busy.value">Add the item</v-btn>
        <span class="small">It starts unpublished.</span>
      </form>
      <p class="ways small">
        <button type="button" class="word-button" @click="emit('move', -1)">move up</button>
        <button type="button" class="word-button" @click="emit('move', 1)">move down</button>
        <button type="button" class="word-button" @click="emit('remove')">remove</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: var(--space-4);
  padding: var(--space-5) var(--space-7) var(--space-6);
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--ink);
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.panel.lesson {
  margin-left: var(--space-9);
}
.line,
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
.line .field-name {
  min-width: 84px;
}
.title {
  width: 340px;
}
</style>
