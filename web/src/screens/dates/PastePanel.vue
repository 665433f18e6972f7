<script setup lang="ts">
import { computed, toRef } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import { type Block, boundsOf, pasted } from './dateBlock'
import { type Answer, type Row, changeOf, fieldWords } from './dateCells'

/** Dates from a spreadsheet, laid into the table from the first chosen cell on: looked at before they are set. */
const props = defineProps<{ edition: number; answer: Answer; rows: Row[]; block: Block; text: string }>()
const emit = defineEmits<{ close: [] }>()

const read = props.answer
const { top, left } = boundsOf(props.block)
const field = props.block.field
const found = pasted(props.text, { row: top, column: left }, props.rows.length, props.answer.sections.length)
const differ = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/differ')
const request = computed(() => {
  const changes = found.cells.flatMap((one) => {
    const row = props.rows[one.row]!
    const present = row.cells[one.column]![field]?.local
    const time = one.time ?? present?.slice(11, 16) ?? '12:00'
    if (present?.slice(0, 16) === `${one.date}T${time}`) return []
    const anchor = { at: 'fixed', date: one.date, time }
    return changeOf(read, row.item, props.answer.sections[one.column]!.id, field, { value: anchor }) ?? []
  })
  return changes.length > 0 && found.faults.length === 0 ? { changes } : null
})
const reach = useReach(request, differ.preview)
const nothing = computed(() =>
  found.faults.length === 0 && !request.value ? 'Nothing would change: these dates are already set.' : '',
)

async function send(): Promise<void> {
  if (!request.value) return
  await differ.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="Dates from a spreadsheet"
    :problem="differ.problem.value"
    :reach="reach || nothing"
    :meant="request ? `Set ${request.changes.length} dates` : 'Set these dates'"
    :disabled="!request || differ.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span
        ><b>{{ found.cells.length }} dates from a spreadsheet</b>, when each {{ fieldWords[field] }}, from
        {{ rows[top]?.code }} in {{ answer.sections[left]?.name }} on</span
      >
    </p>
    <ul v-if="found.faults.length > 0" class="faults" role="alert">
      <li v-for="fault in found.faults.slice(0, 4)" :key="`${fault.row} ${fault.column}`">
        Row {{ fault.row }}, column {{ fault.column }}: “{{ fault.text }}” is not a date. Write it as 2026-10-12 or
        2026-10-12 09:30 and paste again.
      </li>
      <li v-if="found.faults.length > 4">… and {{ found.faults.length - 4 }} more.</li>
    </ul>
  </CommandPanel>
</template>

<style scoped>
.faults {
  color: var(--accent);
}
</style>
