<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'
import { counted } from '../../foundation/words'
import CommandPanel from '../../parts/CommandPanel.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import TextFile from '../../parts/fields/TextFile.vue'
import TimetableFields from '../../parts/timing/TimetableFields.vue'
import { inShort } from '../../parts/timing/periodGrid'
import { type SlotDraft, slotsOf } from '../../parts/timing/slots'
import { type SectionLine, readSections } from './pastedSections'
import { ordinaryPeriods } from './yearSheet'

/** Sections of a term, one on each line: written, or pasted from a list. How each line was read stands beside it. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const people = useAnswer(() => questions.people())
const text = ref('')
const teachers = computed(() =>
  (people.data.value?.people ?? []).filter(
    (person) => person.state !== 'deactivated' && (person.teacher || person.teaches > 0),
  ),
)
const periods = computed(() => ordinaryPeriods(props.calendar))
const lines = computed(() =>
  readSections(text.value, {
    teachers: teachers.value,
    names: props.calendar.sections.map((one) => one.name),
    days: props.calendar.labels.map((one) => ({ label: one.label, words: one.words })),
    periods: periods.value.map((period) => period.name),
  }),
)
/** What was pressed for a section beside what its line says, by its name. */
const timetables = reactive(new Map<string, SlotDraft[]>())
const chosenTeachers = reactive(new Map<string, number>())
/** Whose timetable is open. */
const open = ref<string | null>(null)

const understood = computed(() => lines.value.filter((line): line is SectionLine => 'name' in line))
const slotsFor = (line: SectionLine) => timetables.get(line.name) ?? line.slots
const teachersOf = (line: SectionLine) => {
  const chosen = chosenTeachers.get(line.name)
  return line.teachers.length || chosen === undefined ? line.teachers.map((one) => one.person) : [chosen]
}
const namesOf = (line: SectionLine) =>
  teachers.value.filter((one) => teachersOf(line).includes(one.person)).map((one) => one.name)
const opened = computed(() => understood.value.find((line) => line.name === open.value) ?? null)
const drafts = computed({
  get: () => (opened.value ? slotsFor(opened.value) : []),
  set: (slots) => opened.value && timetables.set(opened.value.name, slots),
})
const request = computed<Schemas['MakeSectionsRequest'] | null>(() => {
  const sections = understood.value.map((line) => {
    const slots = slotsOf(slotsFor(line))
    return slots === null
      ? null
      : {
          name: line.name,
          subject: line.subject,
          year: line.year,
          teachers: teachersOf(line),
          slots: slots as unknown as Schemas['SectionToMake']['slots'],
        }
  })
  const whole = sections.filter((one) => one !== null)
  return whole.length && whole.length === sections.length ? { term: props.calendar.term, sections: whole } : null
})
const reach = computed(() => {
  const wrong = lines.value.length - understood.value.length
  const [untaught, unmet] = [
    understood.value.filter((line) => teachersOf(line).length === 0).length,
    understood.value.filter((line) => slotsFor(line).length === 0).length,
  ]
  return [
    ...(wrong ? [`${counted(wrong, 'line')} cannot be read yet.`] : []),
    ...(untaught
      ? [
          `${untaught === understood.value.length ? 'None has a teacher' : untaught === 1 ? '1 has no teacher' : `${untaught} have no teacher`} yet.`,
        ]
      : []),
    ...(unmet
      ? [
          `${unmet === understood.value.length ? 'None meets' : unmet === 1 ? '1 does not meet' : `${unmet} do not meet`} yet.`,
        ]
      : []),
    'Their teachers let them follow a course.',
  ].join(' ')
})

const { run, busy, problem } = useSend(
  (body: Schemas['MakeSectionsRequest'], key) =>
    ask(api.POST('/api/school/make-sections', { params: { header: once(key) }, body })),
  [keys.term(props.calendar.term), keys.places, keys.people],
)

async function make(): Promise<void> {
  if (request.value && (await run(request.value))) emit('close')
}
</script>

<template>
  <CommandPanel
    label="New sections"
    leave="Not now"
    :problem="problem"
    :reach="reach"
    :meant="understood.length ? `Add ${counted(understood.length, 'section')}` : 'Add sections'"
    :disabled="busy || !request"
    @submit="make"
    @close="emit('close')"
  >
    <div class="paste">
      <div>
        <label class="field-name" for="pasted-sections"
          >One section on each line: its name, and if you like its teachers, when it meets, its year and subject</label
        >
        <v-textarea
          id="pasted-sections"
          v-model="text"
          rows="6"
          no-resize
          autofocus
          :placeholder="`9 Alder, Marit Oyelaran, ${periods.length ? `Mon ${periods[0]!.name}, Thu ${periods.at(-1)!.name}` : 'geography'}`"
        />
        <TextFile label="The sections’ file" @read="(read) => (text = read)" />
      </div>
      <ol class="read" tabindex="0" aria-label="How each line was read">
        <li v-for="line in lines" :key="line.line" :class="{ accent: !('name' in line) }">
          <template v-if="'name' in line">
            <b>{{ line.name }}</b>
            <span>
              {{ [line.subject, namesOf(line).join(' and ')].filter(Boolean).join(', ') }}
              <ChoiceField
                v-if="line.teachers.length === 0"
                :model-value="chosenTeachers.get(line.name) ?? null"
                :label="`Who teaches ${line.name}`"
                placeholder="who teaches it?"
                :choices="
                  teachers.map((one) => ({ value: one.person as number | null, title: one.name, note: one.email }))
                "
                @update:model-value="$event && chosenTeachers.set(line.name, $event)"
              />
            </span>
            <button
              type="button"
              class="word-button"
              :aria-expanded="open === line.name"
              @click="open = open === line.name ? null : line.name"
            >
              {{ inShort(slotsFor(line), calendar.labels) || 'when?'
              }}<span class="said-only">: when {{ line.name }} meets</span>
            </button>
          </template>
          <template v-else>line {{ line.line }}: {{ line.wrong }}</template>
        </li>
        <li v-if="lines.length === 0" class="second">Each line appears here as it is read.</li>
      </ol>
    </div>
    <div v-if="opened" class="when">
      <p class="small">When {{ opened.name }} meets</p>
      <TimetableFields v-model="drafts" :days="calendar.labels" :periods="periods" />
    </div>
  </CommandPanel>
</template>

<style scoped>
.paste {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: var(--space-8);
}
.read {
  max-height: 210px;
  overflow: auto;
  list-style: none;
}
.read li {
  display: grid;
  grid-template-columns: 110px 1fr auto;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.read li.accent,
.read li.second {
  display: block;
}
b {
  font-weight: 600;
}
.when {
  display: grid;
  gap: var(--space-3);
}
@media (max-width: 700px) {
  .paste {
    grid-template-columns: 1fr;
  }
}
</style>
