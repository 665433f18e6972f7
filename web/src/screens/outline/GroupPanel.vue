<script setup lang="ts">
import { computed, reactive, ref, toRef, toRefs, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { usePinned } from '../../foundation/commands/usePinned'
import { useReach } from '../../foundation/commands/useReach'
import { useLevels } from '../../foundation/levels'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useAnswer } from '../../foundation/useAnswer'
import ProblemNote from '../../parts/ProblemNote.vue'
import FollowsTable from './FollowsTable.vue'
import UnitGlance from './outcomes/UnitGlance.vue'
import RowChecks from '../../parts/why/RowChecks.vue'
import NotesHere from './notes/NotesHere.vue'
import { fallsOf } from './rows/falls'
import ConditionEditor from './editors/ConditionEditor.vue'
import PublishTogether from './editors/PublishTogether.vue'
import { type Row, conditionPlaceOf, insideOf, onlyIn, titleOf, unpublishedOf } from './outlineRows'
import { useInView } from './useInView'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import TickField from '../../parts/fields/TickField.vue'
import { questions } from '../../foundation/api/questions'

/** A unit or a lesson opened in place: its title and length, and what follows in each section. */
const props = defineProps<{
  row: Exclude<Row, { level: 'item' }>
  edition: number
  sections: Schemas['OutlineSection'][]
  canChange: boolean
}>()
const emit = defineEmits<{ close: []; remove: []; move: [by: -1 | 1] }>()
const levels = useLevels()

const panel = useTemplateRef<HTMLElement>('panel')
useInView(panel)
const edition = toRef(props, 'edition')
const viewpoint = useViewpoint()
const pace = useAnswer(() => questions.pace(props.edition, viewpoint.query.value))
const falls = computed(() => (pace.data.value ? fallsOf(pace.data.value, props.row) : []))
/** What can be changed of it. */
const fieldsOf = (row: typeof props.row) => ({
  title: titleOf(row),
  classes: (row.level === 'lesson' ? row.lesson.classes : 0) as number | null,
  published: row.level === 'unit' ? row.unit.published : row.lesson.published,
  before: row.level === 'unit' ? row.unit.before : null,
  welcome: row.level === 'unit' && row.unit.welcome,
  shortest: row.level === 'lesson' ? row.lesson.shortest : null,
  optional: row.level === 'lesson' && row.lesson.optional,
})
const versionOf = (row: typeof props.row) => (row.level === 'unit' ? row.unit.version : row.lesson.version)
let read = fieldsOf(props.row)
const draft = reactive({ ...read })
const { title, classes, published, before, welcome, shortest, optional } = toRefs(draft)
const { version, overTheirs } = usePinned(versionOf(props.row))
// Where nothing has been changed here, what arrives is taken over.
watch(
  () => props.row,
  (row) => {
    if (JSON.stringify(draft) !== JSON.stringify(read)) return
    read = fieldsOf(row)
    Object.assign(draft, read)
    version.value = versionOf(row)
  },
)
const unpublished = computed(() => (props.row.level === 'unit' ? unpublishedOf(props.row.unit) : []))
const publishing = ref(false)
const isCondition = ref(false)
const place = computed(() => conditionPlaceOf(props.row))
const changeUnit = useEditionCommand(edition, '/api/editions/{edition}/change-unit')
const changeLesson = useEditionCommand(edition, '/api/editions/{edition}/change-lesson')
const unitRequest = computed(() => {
  if (props.row.level !== 'unit') return null
  const { unit } = props.row
  const same =
    title.value.trim() === unit.title &&
    published.value === unit.published &&
    before.value === unit.before &&
    welcome.value === unit.welcome
  return same
    ? null
    : {
        unit: unit.id,
        title: title.value,
        published: published.value,
        before: before.value,
        welcome: welcome.value,
        version: version.value,
      }
})
const lessonRequest = computed(() => {
  if (props.row.level !== 'lesson' || classes.value === null) return null
  const { lesson } = props.row
  const least = shortest.value
  const same =
    title.value.trim() === lesson.title &&
    classes.value === lesson.classes &&
    least === lesson.shortest &&
    optional.value === lesson.optional &&
    published.value === lesson.published
  return same
    ? null
    : {
        lesson: lesson.id,
        title: title.value,
        classes: classes.value,
        shortest: least,
        optional: optional.value,
        published: published.value,
        version: version.value,
      }
})
const unitReach = useReach(unitRequest, changeUnit.preview)
const lessonReach = useReach(lessonRequest, changeLesson.preview)
const reach = computed(() => unitReach.value || lessonReach.value)
const problem = computed(() => [changeUnit, changeLesson].map((one) => one.problem.value).find((one) => one) ?? null)

async function keep(): Promise<void> {
  const done = unitRequest.value
    ? changeUnit.run(unitRequest.value)
    : lessonRequest.value
      ? changeLesson.run(lessonRequest.value)
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
</script>

<template>
  <div ref="panel" class="panel" :class="row.level" @keydown.esc.stop.prevent="emit('close')">
    <p v-if="!canChange" class="second">It can be read here, not changed.</p>
    <template v-else>
      <form class="line" novalidate @submit.prevent="keep">
        <label class="field-name" for="group-title">Title</label>
        <v-text-field id="group-title" v-model="title" class="title" maxlength="200" autocomplete="off" />
        <template v-if="row.level === 'lesson'">
          <span>Classes</span>
          <NumberField v-model="classes" label="Classes" :max="200" />
          <span title="The shortest it can be when classes are lost. Leave empty if it cannot be shortened."
            >at least</span
          >
          <NumberField v-model="shortest" label="At least" :max="classes ?? 200" optional />
          <TickField v-model="optional" label="optional" title="It may be dropped when classes are lost" />
        </template>
        <template v-else-if="!onlyIn(row)">
          <span>before it opens</span>
          <ChoiceField
            v-model="before"
            label="What students see before it opens"
            :choices="[
              { value: null, title: 'as the course says' },
              { value: 'listed', title: 'listed: title and date' },
              { value: 'unseen', title: 'unseen' },
            ]"
          />
        </template>
        <TickField
          v-if="!onlyIn(row)"
          v-model="published"
          label="published"
          title="Students can see it and what is in it"
        />
        <TickField
          v-if="row.level === 'unit' && !onlyIn(row)"
          v-model="welcome"
          label="always open, to welcome everyone"
          title="What is in it is open from the first day, for everyone, whenever they join. Its dates and conditions go."
        />
        <v-btn type="submit" class="meant">Save</v-btn>
        <span class="small" role="status">{{ reach }}</span>
      </form>
      <ProblemNote v-if="problem" :problem="problem">
        <template v-if="problem.conflict">
          <p class="second">
            Now it says: {{ titleOf(row)
            }}<template v-if="row.level === 'lesson'">, {{ row.lesson.classes }} classes</template>.
          </p>
          <v-btn @click="useMine">Keep mine instead</v-btn>
        </template>
      </ProblemNote>
    </template>
    <p v-if="!onlyIn(row) && !welcome" class="line">
      <button
        type="button"
        class="word-button"
        :disabled="!canChange"
        :aria-expanded="isCondition"
        @click="isCondition = !isCondition"
      >
        {{ place.inWords ?? 'No condition.' }}
      </button>
      <span class="small second">It holds for all that is in this {{ levels[row.level].one }}.</span>
    </p>
    <ConditionEditor
      v-if="isCondition && canChange"
      :edition="edition"
      :place="place"
      :inside="insideOf(row)"
      @close="isCondition = false"
    />
    <UnitGlance v-if="row.level === 'unit'" :edition="edition" :unit="row.unit.id" />
    <FollowsTable
      v-if="falls.length"
      :heads="['begins', 'ends', row.level === 'unit' ? 'fits' : 'classes']"
      :rows="falls"
    />
    <RowChecks :edition="props.edition" :row="row.key" />
    <NotesHere
      :edition="edition"
      :place="row.level === 'unit' ? row.unit.lineage : row.lesson.lineage"
      :can-change="canChange"
    />
    <p v-if="canChange" class="ways small">
      <button type="button" class="word-button" @click="emit('move', -1)">move up</button>
      <button type="button" class="word-button" @click="emit('move', 1)">move down</button>
      <button type="button" class="word-button" @click="emit('remove')">remove</button>
      <button v-if="unpublished.length > 0 && !publishing" type="button" class="word-button" @click="publishing = true">
        publish {{ levels.item.counted(unpublished.length) }}
      </button>
    </p>
    <PublishTogether
      v-if="publishing && row.level === 'unit'"
      :edition="edition"
      :unit="row.unit"
      @close="publishing = false"
    />
  </div>
</template>

<style scoped>
.panel {
  /* The row that it is opened from stays in view. */
  scroll-margin-top: var(--space-8);
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
