<script setup lang="ts">
import { computed, reactive, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useAnswer } from '../../foundation/useAnswer'
import { capital, useLevels } from '../../foundation/levels'
import { joined } from '../../foundation/words'
import CommandPanel from '../../parts/CommandPanel.vue'
import ForStudentPanel from '../../parts/ForStudentPanel.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import DateField from '../../parts/fields/DateField.vue'
import NumberField from '../../parts/fields/NumberField.vue'

/** What a student who joined late catches up on, and by which class: a proposal that is changed by hand, and agreed or not. */
const props = defineProps<{ edition: number; student: number; name: string; term: Schemas['TermSpan'] }>()
const emit = defineEmits<{ close: [] }>()

const levels = useLevels()
const perClass = ref<number | null>(1)
const left = ref<number[]>([])
/** Days set by hand, by item. */
const days = reactive(new Map<number, string>())
const answer = useAnswer(() => questions.catchUp(props.edition, props.student, perClass.value ?? 1, left.value), {
  stays: true,
})
const shown = computed(() => answer.data.value)
const asides = computed(() =>
  (
    [
      ['closed', 'Closed: can no longer be handed in. Give another attempt, or leave it out.'],
      ['stuck', 'Waits for something they cannot do. Open it for them, or leave it out.'],
      ['unplaced', 'No class is left for it.'],
      ['over', 'Over: nothing is asked.'],
      ['left', 'Left out'],
    ] as const
  )
    .map(([list, words]) => ({ list, words, items: shown.value?.[list] ?? [] }))
    .filter((aside) => aside.items.length > 0),
)
const nothing = computed(() => shown.value?.lines.length === 0 && asides.value.length === 0)

const command = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/accept-catch-up')
const asked = computed(() => {
  const lines = (shown.value?.lines ?? []).map((line) => ({
    item: line.item,
    date: days.get(line.item) ?? line.due.local.slice(0, 10),
    time: line.due.local.slice(11, 16),
  }))
  return lines.length + left.value.length === 0 ? null : { student: props.student, lines, leave: [...left.value] }
})
const reach = useReach(asked, (request, signal) => command.preview(request, signal))
const send = () =>
  asked.value &&
  command.run(asked.value).then(
    () => emit('close'),
    () => undefined,
  )
/** What has closed, or waits for something they cannot do: made different for them before the proposal is worked out again. */
const opening = ref<{ id: number; title: string } | null>(null)
const leave = (item: number) => (left.value = [...left.value, item])
const take = (item: number) => (left.value = left.value.filter((one) => one !== item))
const canLeave = (list: string) => list === 'closed' || list === 'stuck' || list === 'unplaced'
</script>

<template>
  <div class="all">
    <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!shown" class="second" role="status">Working out what to catch up on …</p>
    <template v-else>
      <p class="line intro">
        <span>Due at the classes of {{ shown.section }}, at most</span>
        <NumberField v-model="perClass" label="Items due at one class" :min="1" :max="20" />
        <span>at a class, what others need first</span>
      </p>
      <p v-if="nothing" class="second none">There is nothing to catch up on: what was due before, they have done.</p>
      <table v-if="shown.lines.length" class="text-rows">
        <thead>
          <tr>
            <th scope="col">{{ capital(levels.item.one) }}</th>
            <th scope="col">Was due</th>
            <th scope="col">Due for them</th>
            <th scope="col"><span class="said-only">Leave out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in shown.lines" :key="line.item">
            <th scope="row">
              <span class="code">{{ line.code }}</span> {{ line.title }}
              <span v-if="line.needs.length" class="small">after {{ joined(line.needs) }}</span>
              <span v-if="line.asked === 'needed'" class="small">needed for later work</span>
            </th>
            <td class="small">{{ line.was?.words ?? '' }}</td>
            <td class="day">
              <DateField
                :model-value="days.get(line.item) ?? line.due.local.slice(0, 10)"
                :label="`Day for ${line.title}`"
                :min="term.first"
                :max="term.last"
                @update:model-value="(day) => (day ? days.set(line.item, day) : days.delete(line.item))"
              />
              <span class="small">{{ line.due.local.slice(11, 16) }}</span>
            </td>
            <td>
              <button type="button" class="word-button" @click="leave(line.item)">
                leave out<span class="said-only"> {{ line.title }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <section v-for="aside in asides" :key="aside.list" class="aside">
        <p class="second">{{ aside.words }}</p>
        <ul>
          <li v-for="item in aside.items" :key="item.item">
            <span class="code">{{ item.code }}</span> {{ item.title }}
            <span v-for="word in item.words" :key="word" class="small">
              {{ aside.list === 'stuck' ? `waits for ${word}` : word }}
            </span>
            <button v-if="aside.list === 'left'" type="button" class="word-button" @click="take(item.item)">
              ask for it after all<span class="said-only">: {{ item.title }}</span>
            </button>
            <template v-else-if="canLeave(aside.list)">
              <button
                v-if="aside.list !== 'unplaced'"
                type="button"
                class="word-button"
                @click="opening = { id: item.item, title: `${item.code} ${item.title}` }"
              >
                {{ aside.list === 'closed' ? 'give another attempt' : 'open it for them'
                }}<span class="said-only">: {{ item.title }}</span>
              </button>
              <button type="button" class="word-button" @click="leave(item.item)">
                leave out<span class="said-only"> {{ item.title }}</span>
              </button>
            </template>
          </li>
        </ul>
      </section>
    </template>
    <ForStudentPanel
      v-if="opening"
      :key="opening.id"
      class="at-foot"
      :edition="edition"
      :students="[student]"
      :name="name"
      :items="[{ ...opening, differs: [] }]"
      first="open"
      @close="opening = null"
    />
    <CommandPanel
      v-else
      class="at-foot"
      label="The catch-up"
      :problem="command.problem.value"
      :reach="reach"
      meant="Agree on the catch-up"
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
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-4);
}
.intro {
  padding: var(--space-4) 0;
}
.none,
.aside {
  padding: var(--space-5) 0;
}
td {
  white-space: nowrap;
}
.day {
  display: flex;
  align-items: baseline;
  gap: var(--space-4);
}
.code {
  display: inline-block;
  min-width: 44px;
  color: var(--ink-2);
}
.aside li .small,
th .small {
  padding-left: var(--space-4);
}
.aside .word-button {
  margin-left: var(--space-5);
}
</style>
