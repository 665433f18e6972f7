<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useLevels } from '../../foundation/levels'
import { useScreenKeys } from '../../foundation/useKeys'
import StateMark, { type ItemState } from '../../look/marks/StateMark.vue'
import TickField from '../../parts/fields/TickField.vue'
import ForStudentPanel from '../../parts/ForStudentPanel.vue'

/** How everything in the course stands for one student. What is ticked can be made different for them. */
const props = defineProps<{
  edition: number
  one: Schemas['OneStudentAnswer']
  /** The item about which why is asked; null: none. */
  asked: number | null
}>()
const emit = defineEmits<{ why: [item: number | null] }>()

type Item = Schemas['StudentItem']
const levels = useLevels()
const chosen = ref<number[]>([])
/** Where the focus or the pointer is: the key asks about it. */
const at = ref<number | null>(null)
useScreenKeys([
  {
    key: 'y',
    words: 'why this item is open to the student, or not',
    run: () => {
      if (at.value !== null) emit('why', props.asked === at.value ? null : at.value)
    },
  },
])
const onlyDifferent = ref(false)
const doneToo = ref(true)
const shown = computed(() =>
  props.one.items.filter((item) => (!onlyDifferent.value || item.differs.length > 0) && (doneToo.value || !item.done)),
)
const units = computed(() => {
  const byUnit = new Map<string, Item[]>()
  for (const item of shown.value) byUnit.set(item.unit, [...(byUnit.get(item.unit) ?? []), item])
  return [...byUnit]
})
const marks: Record<string, ItemState> = {
  open: 'open',
  overdue: 'overdue',
  closed: 'closed',
  upcoming: 'upcoming',
  unscheduled: 'upcoming',
  locked: 'locked',
  held: 'kept-back',
  unpublished: 'unpublished',
  excused: 'not-needed',
  'not-assigned': 'not-needed',
  withdrawn: 'closed',
}
const stateWords: Record<string, string> = {
  open: 'open',
  overdue: 'overdue',
  closed: 'closed',
  upcoming: 'to come',
  unscheduled: 'has no date to open',
  locked: 'locked',
  held: 'kept back',
  unpublished: 'unpublished',
  excused: 'excused',
  'not-assigned': 'left out',
  withdrawn: 'can only be read',
}
const chosenItems = computed(() => props.one.items.filter((item) => chosen.value.includes(item.id)))
</script>

<template>
  <div class="all">
    <p class="line filter">
      <span class="second">Tick what is to be different for {{ one.name }}.</span>
      <TickField v-model="doneToo" label="what is done too" />
      <TickField v-model="onlyDifferent" label="only what differs" />
    </p>
    <p v-if="shown.length === 0" class="second none">
      {{
        onlyDifferent
          ? `Nothing is different for them. Tick ${levels.item.many} in the whole list to excuse them, give more time or open something.`
          : `No ${levels.item.one} is for them yet.`
      }}
    </p>
    <table v-else class="text-rows tight">
      <tbody v-for="[unit, items] in units" :key="unit">
        <tr class="unit">
          <th colspan="5" scope="rowgroup">{{ unit }}</th>
        </tr>
        <tr
          v-for="item in items"
          :key="item.id"
          :title="item.why"
          :class="{ asked: asked === item.id }"
          @focusin="at = item.id"
          @mouseenter="at = item.id"
        >
          <td class="pick">
            <v-checkbox
              v-if="one.canChange"
              v-model="chosen"
              :value="item.id"
              :aria-label="`Choose ${item.code} ${item.title}`"
            />
          </td>
          <th scope="row">
            <span class="code">{{ item.code }}</span> {{ item.title }}
            <span v-if="item.differs.length" class="differs"
              ><StateMark state="differs" alone /> {{ item.differs.join(', ') }}</span
            >
          </th>
          <td class="state">
            <StateMark v-if="!item.done && marks[item.state]" :state="marks[item.state]!" />
            <span v-else class="no-mark"></span>
            {{ item.done && item.state !== 'excused' ? 'done' : stateWords[item.state] }}
          </td>
          <td class="why" :class="{ quiet: item.done && asked !== item.id }">
            <button
              type="button"
              class="word-button"
              :aria-label="`why: ${item.code} ${item.title}`"
              :aria-expanded="asked === item.id"
              @click="emit('why', asked === item.id ? null : item.id)"
            >
              why
            </button>
          </td>
          <td class="due small">{{ item.due?.words ?? '' }}</td>
        </tr>
      </tbody>
    </table>
    <ForStudentPanel
      v-if="one.canChange && chosenItems.length > 0"
      class="at-foot"
      :edition="edition"
      :students="[one.student]"
      :name="one.name"
      :items="chosenItems"
      @close="chosen = []"
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
  gap: var(--space-3) var(--space-7);
}
.filter {
  padding: var(--space-4) 0;
}
.none {
  padding: var(--space-5) 0;
}
.unit th {
  font-weight: 650;
  padding-top: var(--space-5);
  border-color: var(--ink);
}
.pick {
  width: 34px;
}
.code {
  display: inline-block;
  min-width: 44px;
  color: var(--ink-2);
  font-variant-numeric: tabular-nums;
}
.differs {
  padding-left: var(--space-4);
  color: var(--accent);
}
.state {
  width: 130px;
  white-space: nowrap;
}
.why {
  width: 50px;
}
/* Of what is done it is rarely asked. */
@media (hover: hover) {
  tr:not(:hover, :focus-within) > .quiet button {
    opacity: 0;
  }
}
.asked td,
.asked th {
  background: var(--sheet);
}
.no-mark {
  display: inline-block;
  width: 18px;
}
.due {
  width: 150px;
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
</style>
