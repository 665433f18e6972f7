<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useSchoolDays } from '../../foundation/dates/schoolDays'
import { counted } from '../../foundation/words'
import CommandPanel from '../../parts/CommandPanel.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'

/** Students join a section, or those who are chosen move to another or leave. */
const props = defineProps<{
  edition: number
  section: number
  sections: readonly { section: number; name: string }[]
  /** None: somebody joins. */
  chosen: readonly number[]
}>()
const emit = defineEmits<{ close: [] }>()

const edition = toRef(props, 'edition')
const school = useSchoolDays()
const joins = computed(() => props.chosen.length === 0)
const what = ref<'move' | 'leave'>('move')
const others = computed(() => props.sections.filter((one) => one.section !== props.section))
const to = ref(others.value[0]?.section ?? 0)
const on = ref<string | null>(school.value.today < school.value.first ? school.value.first : school.value.today)
const pasted = ref('')
const addresses = computed(() => [
  ...new Set(
    pasted.value
      .split(/[\s,;]+/)
      .map((address) => address.trim().toLowerCase())
      .filter(Boolean),
  ),
])
const nameOf = (section: number) => props.sections.find((one) => one.section === section)?.name ?? ''
const join = useEditionCommand(edition, '/api/editions/{edition}/join-students')
const move = useEditionCommand(edition, '/api/editions/{edition}/move-students')
const leave = useEditionCommand(edition, '/api/editions/{edition}/leave-section')
const commands = [join, move, leave]
const problem = computed(() => commands.map((command) => command.problem.value).find(Boolean) ?? null)
const busy = computed(() => commands.some((command) => command.busy.value))

type Answer = ReturnType<typeof move.run>
function of<R>(
  command: { preview: (request: R, signal: AbortSignal) => Answer; run: (request: R) => Answer },
  request: R,
) {
  return { preview: (signal: AbortSignal) => command.preview(request, signal), run: () => command.run(request) }
}
const asked = computed(() => {
  if (!on.value) return null
  if (joins.value)
    return addresses.value.length === 0
      ? null
      : of(join, { section: props.section, addresses: addresses.value, from: on.value })
  if (what.value === 'leave') return of(leave, { section: props.section, students: [...props.chosen], last: on.value })
  return to.value
    ? of(move, { students: [...props.chosen], from: props.section, to: to.value, on: on.value, choices: [] })
    : null
})
const reach = useReach(asked, (one, signal) => one.preview(signal))
const meant = computed(() => {
  if (joins.value) return `Have them join ${nameOf(props.section)}`
  return what.value === 'leave' ? `Have them leave ${nameOf(props.section)}` : `Move them to ${nameOf(to.value)}`
})
const send = () =>
  asked.value?.run().then(
    () => emit('close'),
    () => undefined,
  )
</script>

<template>
  <CommandPanel
    :label="joins ? 'Students join' : 'Chosen students'"
    :problem="problem"
    :reach="reach"
    :meant="meant"
    :disabled="!asked || busy"
    @submit="send"
    @close="emit('close')"
  >
    <p v-if="joins" class="line">
      <span>Those with these mail addresses join from</span>
      <DateField v-model="on" label="From" :min="school.first" :max="school.last" />
      <v-textarea v-model="pasted" class="pasted" aria-label="Mail addresses" rows="2" auto-grow autofocus />
      <span class="small"
        >{{ counted(addresses.length, 'address', 'addresses') }}. What was due by then is not asked of them.</span
      >
    </p>
    <p v-else class="line">
      <span>{{ counted(chosen.length, 'student') }}</span>
      <ChoiceField
        v-model="what"
        label="What they do"
        :choices="[
          { value: 'move', title: chosen.length === 1 ? 'moves to' : 'move to' },
          { value: 'leave', title: chosen.length === 1 ? 'leaves after' : 'leave after' },
        ]"
      />
      <template v-if="what === 'move'">
        <ChoiceField
          v-model="to"
          label="To which section"
          :choices="others.map((one) => ({ value: one.section, title: one.name }))"
        />
        <span>from</span>
      </template>
      <DateField v-model="on" label="Day" :min="school.first" :max="school.last" />
      <span v-if="what === 'move'" class="small"
        >Whatever is already due there gets a new due date; to settle it one by one, press the name.</span
      >
      <span v-else class="small">What they handed in stays, and can be read.</span>
    </p>
  </CommandPanel>
</template>

<style scoped>
.pasted {
  flex: 1 1 100%;
}
</style>
