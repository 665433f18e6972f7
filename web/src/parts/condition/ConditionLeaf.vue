<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { capital, useLevels } from '../../foundation/levels'
import ChoiceField from '../fields/ChoiceField.vue'
import TimingFields from '../timing/TimingFields.vue'
import ScoreFields from './ScoreFields.vue'
import { type Asked, type Leaf, isScore, pickedIs } from './draft'

/** One thing that must be so, as part of a sentence: what it is about, and what must have become of it. */
const props = defineProps<{ askable: Schemas['AskableAnswer']; place: string; near: readonly string[] }>()
const leaf = defineModel<Leaf>({ required: true })
const levels = useLevels()

const OTHERS = ['group', 'lesson', 'moment'] as const
const deedWords: Record<string, string> = {
  returned: 'is given back with feedback',
  submitted: 'is handed in',
  opened: 'is opened',
  ticked: 'is ticked off',
}
const about = computed(() => (leaf.value.about === 'item' ? leaf.value.item : `#${leaf.value.about}`))
/** What makes sense first: what comes shortly before, then the rest in order, then what is no item. */
const subjects = computed(() => {
  const choice = (one: Schemas['AskableItem']) => ({
    value: one.lineage,
    title: `${one.code} ${one.title}`,
    note: one.kind,
  })
  const near = props.near.flatMap((lineage) => props.askable.items.filter((one) => one.lineage === lineage))
  const words = {
    group: 'the student',
    lesson: `the ${levels.value.lesson.one}`,
    moment: 'the moment',
  }
  const notes = { group: 'is in a group', lesson: 'has been taught', moment: 'has come' }
  return [
    ...[...near, ...props.askable.items.filter((one) => !near.includes(one))].map(choice),
    ...OTHERS.map((other) => ({ value: `#${other}`, title: words[other], note: notes[other] })),
  ]
})
const item = computed(() => props.askable.items.find((one) => one.lineage === leaf.value.item) ?? null)

function asksOf(of: Schemas['AskableItem'] | null): { value: Asked; title: string }[] {
  if (!of) return [{ value: 'returned', title: deedWords.returned! }]
  return [
    ...of.options.map(({ option, title }) => ({ value: pickedIs(option), title: `has “${title}” picked` })),
    ...[...of.deeds].reverse().map((deed) => ({ value: deed as Asked, title: deedWords[deed] ?? deed })),
    ...(of.isScored
      ? ([
          { value: 'score-min', title: 'has a score of at least' },
          { value: 'score-below', title: 'has a score below' },
          { value: 'score-between', title: 'has a score from' },
        ] as const)
      : []),
  ]
}
const asks = computed(() => asksOf(item.value))

/** What was asked of another item may not be asked of this one. */
function take(value: string): void {
  if (value.startsWith('#')) return void (leaf.value = { ...leaf.value, about: value.slice(1) as Leaf['about'] })
  const choices = asksOf(props.askable.items.find((one) => one.lineage === value) ?? null)
  const asked = choices.some((one) => one.value === leaf.value.asked) ? leaf.value.asked : choices[0]!.value
  leaf.value = { ...leaf.value, about: 'item', item: value, asked }
}
const set = (change: Partial<Leaf>) => (leaf.value = { ...leaf.value, ...change })
const lessons = computed(() =>
  props.askable.lessons.map(({ lineage, title, unit }) => ({ value: lineage, title, note: unit })),
)
const needsLesson = computed(() => !['on-date', 'other', 'none'].includes(leaf.value.timing.kind))
</script>

<template>
  <span v-if="leaf.not" class="not">it is not the case that</span>
  <ChoiceField
    :model-value="about"
    :label="`${capital(levels.item.one)} ${place}`"
    :placeholder="`choose ${levels.item.a}`"
    :choices="subjects"
    @update:model-value="take"
  />
  <template v-if="leaf.about === 'item'">
    <ChoiceField
      :model-value="leaf.asked"
      :label="`What must have happened, ${place}`"
      :choices="asks"
      @update:model-value="set({ asked: $event })"
    />
    <ScoreFields
      v-if="item && isScore(leaf.asked)"
      :key="item.lineage"
      :model-value="leaf"
      :item="item"
      :place="place"
      @update:model-value="leaf = $event"
    />
  </template>
  <template v-else-if="leaf.about === 'group'">
    <span>is in</span>
    <ChoiceField
      :model-value="leaf.group"
      :label="`Group ${place}`"
      placeholder="choose a group"
      :choices="askable.groups.map((name) => ({ value: name, title: name }))"
      @update:model-value="set({ group: $event })"
    />
    <span v-if="askable.groups.length === 0" class="small second">there are no groups yet: add one in Sections</span>
  </template>
  <template v-else>
    <ChoiceField
      v-if="leaf.about === 'lesson'"
      :model-value="leaf.lesson"
      :label="`${capital(levels.lesson.one)} ${place}`"
      :placeholder="`choose ${levels.lesson.a}`"
      :choices="lessons"
      @update:model-value="set({ lesson: $event })"
    />
    <span v-if="leaf.about === 'lesson'">has been taught</span>
    <template v-else>
      <span>has come:</span>
      <TimingFields
        :model-value="leaf.timing"
        needed
        :name="`Moment ${place}`"
        @update:model-value="set({ timing: $event })"
      />
      <ChoiceField
        v-if="needsLesson"
        :model-value="leaf.lesson"
        :label="`${capital(levels.lesson.one)} ${place}`"
        :placeholder="`choose ${levels.lesson.a}`"
        :choices="lessons"
        @update:model-value="set({ lesson: $event })"
      />
    </template>
  </template>
</template>

<style scoped>
.not {
  color: var(--accent);
}
</style>
