<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useTermCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useSend } from '../../foundation/commands/useSend'
import CommandPanel from '../../parts/CommandPanel.vue'
import WordField from '../../parts/fields/WordField.vue'
import TimetableFields from '../../parts/timing/TimetableFields.vue'
import { draftsOf, slotsOf } from '../../parts/timing/slots'
import { ordinaryPeriods } from './yearSheet'

/** What a section is called and when it meets; it can be removed as long as nothing stands in it. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer']; section: Schemas['TermSectionCard'] }>()
const emit = defineEmits<{ close: []; end: [] }>()

const name = ref(props.section.name)
const subject = ref(props.section.subject)
const year = ref(props.section.year)
const drafts = ref(draftsOf(props.section.slots))
const version = props.section.version
const change = useTermCommand(
  toRef(() => props.calendar.term),
  '/api/terms/{term}/change-section',
)
const request = computed(() => {
  const slots = slotsOf(drafts.value)
  const said = JSON.stringify([name.value.trim(), subject.value.trim(), year.value.trim(), slots])
  const before = [props.section.name, props.section.subject, props.section.year, slotsOf(draftsOf(props.section.slots))]
  return slots && name.value.trim() && said !== JSON.stringify(before)
    ? {
        section: props.section.id,
        name: name.value,
        subject: subject.value,
        year: year.value,
        slots: slots as unknown as Schemas['ChangeSectionRequest']['slots'],
        version,
      }
    : null
})
const reach = useReach(request, change.preview)
const removal = useSend(
  (body: Schemas['RemoveSectionRequest'], key) =>
    ask(api.POST('/api/school/remove-section', { params: { header: once(key) }, body })),
  [keys.term(props.calendar.term), keys.places, keys.people],
)

async function send(): Promise<void> {
  if (!request.value) return
  await change.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}

async function remove(): Promise<void> {
  if (await removal.run({ section: props.section.id })) emit('close')
}
</script>

<template>
  <CommandPanel
    :label="`Section ${section.name}`"
    :problem="change.problem.value ?? removal.problem.value"
    :reach="reach"
    meant="Save the section"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>Section</span>
      <WordField v-model="name" class="name" label="Name of the section" autofocus />
      <span>year</span>
      <WordField v-model="year" class="year" label="Year" placeholder="any" :maxlength="40" />
      <span>subject</span>
      <WordField v-model="subject" class="name" label="Subject" placeholder="not said" :maxlength="120" />
      <span class="second">{{
        section.teachers.length ? `taught by ${section.teachers.join(' and ')}` : 'nobody teaches it yet'
      }}</span>
    </p>
    <TimetableFields v-model="drafts" :days="calendar.labels" :periods="ordinaryPeriods(calendar)" />
    <template #more>
      <button
        v-if="section.course === null && section.students === 0"
        type="button"
        class="word-button"
        @click="remove"
      >
        remove the section
      </button>
      <button v-else type="button" class="word-button" @click="emit('end')">
        {{ section.last ? 'change its last day' : 'end it before the term' }}
      </button>
    </template>
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 0 160px;
}
.year {
  flex: 0 0 70px;
}
</style>
