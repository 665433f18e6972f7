<script setup lang="ts">
import { computed, reactive, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import CommandPanel from '../../parts/CommandPanel.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import { type Choice, asked as askedChoices, becomes, choiceWords, sorted } from './moved'

/** A student moves to another section on a day: item by item what becomes of it, and what has to be settled first. */
const props = defineProps<{ edition: number; one: Schemas['OneStudentAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const levels = useLevels()
const today = props.one.term.today
const on = ref<string | null>(today < props.one.term.first ? props.one.term.first : today)
const places = computed(() =>
  props.one.places.filter((place) => place.to === null || place.to >= today).map((place) => place.section),
)
const from = ref(props.one.places.find((place) => place.isNow)?.section ?? places.value[0] ?? 0)
const others = computed(() => props.one.sections.filter((section) => section.id !== from.value))
const to = ref(others.value[0]?.id ?? 0)
const choices = reactive(new Map<number, Choice>())
const nameOf = (section: number) => props.one.sections.find((one) => one.id === section)?.name ?? ''
const answer = useAnswer(
  () =>
    questions.move(props.edition, props.one.student, {
      from: from.value,
      to: to.value,
      on: on.value ?? today,
      choices: askedChoices(choices),
    }),
  { stays: true, enabled: computed(() => on.value !== null && to.value !== 0) },
)
const rows = computed(() => sorted(answer.data.value?.rows ?? []))
const command = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/move-students')
const asked = computed(() =>
  on.value && to.value && answer.data.value && !answer.problem.value
    ? {
        students: [props.one.student],
        from: from.value,
        to: to.value,
        on: on.value,
        choices: rows.value.asks.map((row) => ({
          student: props.one.student,
          item: row.item,
          choice: choices.get(row.item) ?? ('new' as const),
        })),
      }
    : null,
)
const reach = useReach(asked, (request, signal) => command.preview(request, signal))
const send = () =>
  asked.value &&
  command.run(asked.value).then(
    () => emit('close'),
    () => undefined,
  )
const words = Object.entries(choiceWords).map(([value, title]) => ({ value: value as Choice, title }))
</script>

<template>
  <div class="all">
    <p class="line intro">
      <template v-if="places.length > 1">
        <span>From</span>
        <ChoiceField
          v-model="from"
          label="From which section"
          :choices="places.map((id) => ({ value: id, title: nameOf(id) }))"
        />
      </template>
      <span v-else>From {{ nameOf(from) }}</span>
      <span>to</span>
      <ChoiceField
        v-model="to"
        label="To which section"
        :choices="others.map((section) => ({ value: section.id, title: section.name }))"
      />
      <span>from</span>
      <DateField v-model="on" label="The first day there" :min="one.term.first" :max="one.term.last" />
    </p>
    <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" />
    <p v-else-if="!answer.data.value" class="second" role="status">Working out what the move comes to …</p>
    <p v-else-if="answer.data.value.isBack" class="none">
      This undoes the move of that day: everything is as it was
      {{
        answer.data.value.takesBack > 0
          ? `, and ${answer.data.value.takesBack} of the differences that the move brought go`
          : ''
      }}.
    </p>
    <template v-else>
      <table v-if="rows.asks.length" class="text-rows">
        <thead>
          <tr>
            <th scope="col">Already due in {{ nameOf(to) }}: say what comes of it</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows.asks" :key="row.item">
            <th scope="row">
              <span class="code">{{ row.code }}</span> {{ row.title }} <span class="small">{{ becomes(row) }}</span>
            </th>
            <td class="settle">
              <ChoiceField
                :model-value="choices.get(row.item) ?? 'new'"
                :label="`What comes of ${row.title}`"
                :choices="words"
                @update:model-value="(choice) => choices.set(row.item, choice)"
              />
              <span v-if="(choices.get(row.item) ?? 'new') === 'new'" class="small">
                {{ row.proposed?.words ?? 'no class is left: no due date' }}
              </span>
            </td>
          </tr>
        </tbody>
      </table>
      <table class="text-rows">
        <thead>
          <tr>
            <th scope="col">What differs</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows.differs" :key="row.item">
            <th scope="row">
              <span class="code">{{ row.code }}</span> {{ row.title }}
            </th>
            <td class="small">{{ becomes(row) }}<template v-if="row.keptOpen">; stays open, as it was</template></td>
          </tr>
          <tr v-if="rows.differs.length === 0">
            <td colspan="2" class="second">Nothing.</td>
          </tr>
        </tbody>
      </table>
      <p class="second none">
        {{
          rows.same === 0 ? 'Nothing stays the same.' : `${levels.item.counted(rows.same)} done, or with the same date.`
        }}
        What they handed in is theirs and comes with them.
      </p>
    </template>
    <CommandPanel
      class="at-foot"
      :label="`Moving ${one.name}`"
      :problem="command.problem.value"
      :reach="reach"
      :meant="`Move to ${nameOf(to)}`"
      :disabled="!asked || command.busy.value"
      @submit="send"
      @close="emit('close')"
    />
  </div>
</template>

<style scoped>
table {
  width: 100%;
}
.line,
.settle {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-4);
}
.intro {
  padding: var(--space-4) 0;
}
.none {
  padding: var(--space-4) 0;
}
thead th,
thead td {
  padding-top: var(--space-4);
}
.settle {
  border: 0;
}
.code {
  display: inline-block;
  min-width: 44px;
  color: var(--ink-2);
}
th .small {
  padding-left: var(--space-4);
}
</style>
