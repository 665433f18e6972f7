<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { type Schemas, problemOf } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import { type How, type Outcome, between, sideBySide, waysOf } from './lost'

/** Classes that will not take place: every way to make up for them, its dates side by side, before one is taken. */
const props = defineProps<{ edition: number; section: Schemas['PaceSection']; lost: Schemas['PaceClass'] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const last = ref(props.lost.ordinal)
const how = ref<How>('move-on')
const ways = waysOf(levels.value.lesson)
const outcomes = ref<(Outcome | null)[]>(ways.map(() => null))
const lose = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/lose-classes')
const later = computed(() => props.section.classes.filter((one) => one.ordinal >= props.lost.ordinal).slice(0, 40))
const classes = computed(() => between(props.section.classes, props.lost, last.value))
const requestOf = (way: How) => ({ section: props.section.id, classes: classes.value, how: way })
const rows = computed(() => sideBySide(outcomes.value))
const chosen = computed(() => outcomes.value[ways.findIndex((way) => way.how === how.value)])
const isReady = computed(() => chosen.value && 'reach' in chosen.value)

// Asked one after another: each holds the course for a moment.
watch(
  classes,
  async (asked) => {
    outcomes.value = ways.map(() => null)
    for (const [at, way] of ways.entries()) {
      const outcome = await lose
        .preview(requestOf(way.how))
        .catch((error: unknown) => ({ refused: problemOf(error).title }))
      if (classes.value !== asked) return
      outcomes.value[at] = outcome
    }
  },
  { immediate: true },
)

async function send(): Promise<void> {
  await lose.run(requestOf(how.value)).then(
    () => emit('close'),
    () => undefined,
  )
}

const said = (outcome: Outcome | null | undefined) =>
  !outcome ? '…' : 'refused' in outcome ? outcome.refused : outcome.reach.sentence
</script>

<template>
  <CommandPanel
    label="A lost class"
    :problem="lose.problem.value"
    reach=""
    :meant="classes.length === 1 ? 'Cancel this class so' : `Cancel ${classes.length} classes so`"
    :disabled="!isReady || lose.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <SectionKey :letter="section.letter" :name="section.name" />
      <span
        ><b>class {{ lost.ordinal }}, {{ lost.words }}</b
        >{{ lost.lesson ? `: ${lost.lesson}` : '' }}</span
      >
      <label
        >to
        <select v-model="last" aria-label="Last class that is lost">
          <option v-for="one in later" :key="one.ordinal" :value="one.ordinal">
            {{ one.ordinal === lost.ordinal ? 'this one only' : `class ${one.ordinal}, ${one.words}` }}
          </option>
        </select></label
      >
    </p>
    <div class="scroll" tabindex="0" role="group" aria-label="Ways to make up for it">
      <table>
        <thead>
          <tr>
            <th scope="col"><span class="said-only">Date</span></th>
            <th scope="col" class="small">now</th>
            <th v-for="(way, at) in ways" :key="way.how" scope="col" class="way">
              <label
                ><input
                  v-model="how"
                  type="radio"
                  :value="way.how"
                  :disabled="Boolean(outcomes[at] && 'refused' in outcomes[at]!)"
                />{{ way.words }}</label
              >
              <span class="small said">{{ said(outcomes[at]) }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="`${row.name} ${row.field}`">
            <th scope="row">
              {{ row.name }} <span class="small">{{ row.field }}</span>
            </th>
            <td>{{ row.before ?? '–' }}</td>
            <td v-for="(way, at) in ways" :key="way.how" :class="{ at: way.how === how }">
              <template v-if="row.after[at] !== undefined">{{ row.after[at] ?? 'no date' }}</template>
              <span v-else-if="outcomes[at] && 'reach' in outcomes[at]!" class="small">stays</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </CommandPanel>
</template>

<style scoped>
.scroll {
  max-height: 300px;
  overflow: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  padding: var(--space-2) var(--space-6) var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
thead th {
  position: sticky;
  top: 0;
  background: var(--sheet);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
td:nth-child(2) {
  white-space: nowrap;
}
.way {
  width: 18%;
}
.said {
  display: block;
}
.at {
  font-weight: 600;
}
</style>
