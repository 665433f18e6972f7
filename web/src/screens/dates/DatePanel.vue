<script setup lang="ts">
import { computed, ref, shallowRef, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import TimingFields from '../../parts/timing/TimingFields.vue'
import { type TimingChoice, anchorOf } from '../../parts/timing/timing'
import { type Block, boundsOf } from './dateBlock'
import { type Answer, type Row, type To, changesOf, differenceOf, fieldWords } from './dateCells'
import TickField from '../../parts/fields/TickField.vue'
import RowChecks from '../../parts/why/RowChecks.vue'
import WhyDates from '../../parts/why/WhyDates.vue'

/** One date or a block of them, for one section, some or all: what it would do stands there before it is done. */
const props = defineProps<{ edition: number; answer: Answer; rows: Row[]; block: Block }>()
const emit = defineEmits<{ close: []; students: [] }>()
const levels = useLevels()

const bounds = boundsOf(props.block)
const chosenRows = computed(() => props.rows.slice(bounds.top, bounds.bottom + 1))
const items = computed(() => chosenRows.value.map((row) => row.item))
const field = props.block.field
/** What was read when one began: versions are named from it, so that somebody else's change is noticed. */
const read = shallowRef(props.answer)
const first = computed(() => props.rows[props.block.from.row]!.cells[props.block.from.column]!)
const present = computed(() => first.value[field])
const choice = ref<TimingChoice>({
  kind: 'on-date',
  count: 1,
  date: present.value?.local.slice(0, 10) ?? '',
  time: present.value?.local.slice(11, 16) ?? '12:00',
})
const chosen = ref(props.answer.sections.slice(bounds.left, bounds.right + 1).map((section) => section.id))
const edition = toRef(props, 'edition')
const differ = useEditionCommand(edition, '/api/editions/{edition}/differ')
const isOne = computed(() => items.value.length === 1 && chosen.value.length === 1)
/** Some students of one section can have it otherwise. */
const isForOne = computed(
  () => isOne.value && props.answer.sections.some((one) => one.id === chosen.value[0] && !one.pretend),
)
const isWhy = ref(false)
const unchanged = computed(
  () =>
    isOne.value &&
    choice.value.kind === 'on-date' &&
    `${choice.value.date}T${choice.value.time}` === present.value?.local.slice(0, 16),
)
const request = computed(() => {
  const anchor = anchorOf(choice.value)
  if (anchor === undefined || unchanged.value || chosen.value.length === 0) return null
  return asked(field, { value: anchor })
})
const reach = useReach(request, differ.preview)
const cells = computed(() =>
  chosenRows.value.flatMap((row) => row.cells.filter((_, at) => chosen.value.includes(props.answer.sections[at]!.id))),
)
const differing = computed(() => cells.value.filter((cell) => differenceOf(cell, field)))
const course = computed(() => (cells.value.length === 1 ? differenceOf(first.value, field)?.course?.words : null))
/** Whether all of it is so by a difference of its own: what its lesson or unit makes so is put back there, in Sections. */
const isOwn = (of: 'hold' | 'skip') => cells.value.length > 0 && cells.value.every((cell) => differenceOf(cell, of))
const isSo = (mark: 'held' | 'skipped') => cells.value.length > 0 && cells.value.every((cell) => cell[mark])

function asked(of: Schemas['DifferenceChange']['field'], to: To): { changes: Schemas['DifferenceChange'][] } | null {
  const changes = changesOf(read.value, items.value, chosen.value, of, to)
  return changes.length > 0 ? { changes } : null
}

async function send(what: { changes: Schemas['DifferenceChange'][] } | null): Promise<void> {
  if (!what) return
  await differ.run(what).then(
    () => emit('close'),
    () => undefined,
  )
}

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  read.value = props.answer
  void send(request.value)
}

/** Marks what is not marked so yet, or puts back what is. */
const mark = (of: 'hold' | 'skip') => send(asked(of, isOwn(of) ? 'put-back' : { value: true }))
</script>

<template>
  <CommandPanel
    label="Dates"
    :problem="differ.problem.value"
    :reach="reach"
    :meant="isOne ? 'Set this date' : `Set ${items.length * chosen.length} dates`"
    :disabled="!request || differ.busy.value"
    @submit="send(request)"
    @close="emit('close')"
  >
    <p class="line">
      <span
        ><b v-if="chosenRows.length === 1">{{ chosenRows[0]!.code }} {{ chosenRows[0]!.title }}</b>
        <b v-else :title="chosenRows.map((row) => `${row.code} ${row.title}`).join('\n')"
          >{{ levels.item.counted(chosenRows.length) }} from {{ chosenRows[0]?.code }} to
          {{ chosenRows.at(-1)?.code }}</b
        >
        {{ fieldWords[field] }}</span
      >
      <TimingFields v-model="choice" :name="fieldWords[field]" />
      <span>in</span>
      <TickField v-for="section in answer.sections" :key="section.id" v-model="chosen" :value="section.id">
        <SectionKey :letter="section.letter" :name="section.name" />
      </TickField>
      <button type="button" class="word-button" @click="chosen = answer.sections.map((section) => section.id)">
        all sections
      </button>
    </p>
    <p v-if="isOne && !first.skipped">
      <button type="button" class="word-button" :aria-expanded="isWhy" @click="isWhy = !isWhy">why this date?</button>
    </p>
    <RowChecks v-if="items.length === 1" :edition="edition" :row="`item-${items[0]}`" />
    <WhyDates v-if="isOne && isWhy" :edition="edition" :item="items[0]!" :section="chosen[0]!" />
    <template v-if="differ.problem.value?.conflict" #problem>
      <p class="second">Now it says: {{ present?.words ?? 'no date' }}. Yours is still in the fields.</p>
      <v-btn @click="useMine">Use mine instead</v-btn>
    </template>
    <template #more>
      <v-btn v-if="differing.length > 0" :disabled="differ.busy.value" @click="send(asked(field, 'put-back'))">
        Put back<template v-if="course">: {{ course }}</template
        ><template v-else-if="differing.length > 1"> {{ differing.length }} dates</template>
      </v-btn>
      <button
        v-if="isOwn('hold') || !isSo('held')"
        type="button"
        class="word-button"
        :disabled="differ.busy.value"
        @click="mark('hold')"
      >
        {{ isOwn('hold') ? 'stop keeping back' : 'keep back' }}
      </button>
      <button
        v-if="isOwn('skip') || !isSo('skipped')"
        type="button"
        class="word-button"
        :disabled="differ.busy.value"
        @click="mark('skip')"
      >
        {{ isOwn('skip') ? 'stop dropping' : 'drop here' }}
      </button>
      <button v-if="isForOne" type="button" class="word-button" @click="emit('students')">for single students</button>
    </template>
  </CommandPanel>
</template>

<style scoped>
.one {
  display: inline-flex;
  align-items: center;
}
</style>
