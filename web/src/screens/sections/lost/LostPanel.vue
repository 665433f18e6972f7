<script setup lang="ts">
import { computed, ref, shallowRef, toRef, watch } from 'vue'
import { type Schemas, api, ask, problemOf } from '../../../foundation/api/client'
import { NoLongerAsked } from '../../../foundation/commands/useCommand'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useLevels } from '../../../foundation/levels'
import { useViewpoint } from '../../../foundation/useViewpoint'
import SectionKey from '../../../look/marks/SectionKey.vue'
import CommandPanel from '../../../parts/CommandPanel.vue'
import LostDates from './LostDates.vue'
import { type How, type Outcome, between, groupsOf, sideBySide, waysOf } from './lost'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import TickField from '../../../parts/fields/TickField.vue'

/** Classes that will not take place: every way to make up for them, its dates side by side, before one is taken. */
const props = defineProps<{
  edition: number
  section: Schemas['PaceSection']
  lost: Schemas['PaceClass']
  unit: string
}>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()
const viewpoint = useViewpoint()

const last = ref(props.lost.ordinal)
const how = ref<How>('move-on')
const ways = waysOf(levels.value.lesson)
const outcomes = ref<(Outcome | null)[]>(ways.map(() => null))
const can = shallowRef<Schemas['WaysAnswer'] | null>(null)
/** The optional lessons to drop for them. */
const dropped = ref<number[]>([])
const lose = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/lose-classes')
const later = computed(() => props.section.classes.filter((one) => one.ordinal >= props.lost.ordinal).slice(0, 40))
const classes = computed(() => between(props.section.classes, props.lost, last.value))
const requestOf = (way: How) => ({
  section: props.section.id,
  classes: classes.value,
  how: way,
  ...(way === 'drop' && can.value?.drop.length && { drop: dropped.value }),
})
const groups = computed(() => groupsOf(sideBySide(outcomes.value), props.lost))
const chosen = computed(() => outcomes.value[ways.findIndex((way) => way.how === how.value)])
const isReady = computed(() => chosen.value && 'reach' in chosen.value)
const refusal = (error: unknown): Outcome | null =>
  error instanceof NoLongerAsked ? null : { refused: problemOf(error).title }

async function look(at: number, isOld: () => boolean, signal?: AbortSignal): Promise<void> {
  const outcome = await lose.preview(requestOf(ways[at]!.how), signal).catch(refusal)
  if (!isOld()) outcomes.value[at] = outcome
}

watch(
  classes,
  async (asked, _, onCleanup) => {
    const giveUp = new AbortController()
    onCleanup(() => giveUp.abort())
    const isOld = () => classes.value !== asked
    outcomes.value = ways.map(() => null)
    can.value = null
    const [from, to] = [asked[0]!, asked.at(-1)!].map((one) => `${one.date}T${one.start}`)
    const query = { ...viewpoint.query.value, section: props.section.id, from: from!, to: to! }
    const answer = await ask(
      api.GET('/api/editions/{edition}/ways', { params: { path: { edition: props.edition }, query } }),
    ).catch(() => null)
    if (isOld()) return
    dropped.value = answer?.drop.filter((one) => one.meant).map((one) => one.id) ?? []
    can.value = answer
    // Asked one after another: each holds the course for a moment.
    for (let at = 0; at < ways.length && !isOld(); at++) await look(at, isOld, giveUp.signal)
  },
  { immediate: true },
)

function drop(id: number): void {
  how.value = 'drop'
  dropped.value = dropped.value.includes(id) ? dropped.value.filter((one) => one !== id) : [...dropped.value, id]
  const asked = dropped.value
  const at = ways.findIndex((way) => way.how === 'drop')
  outcomes.value[at] = null
  void look(at, () => dropped.value !== asked)
}

async function send(): Promise<void> {
  await lose.run(requestOf(how.value)).then(
    () => emit('close'),
    () => undefined,
  )
}

const said = (outcome: Outcome | null | undefined) =>
  !outcome ? '…' : 'refused' in outcome ? outcome.refused : outcome.reach.sentence
const amountOf = (by: number) => (by === 1 ? props.unit.replace(/e?s$/, '') : props.unit)
</script>

<template>
  <CommandPanel
    label="A lost class"
    :problem="lose.problem.value"
    reach=""
    :meant="classes.length === 1 ? 'Cancel this class' : `Cancel ${classes.length} classes`"
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
      <span>to</span>
      <ChoiceField
        v-model="last"
        label="Last class that is lost"
        :choices="
          later.map((one) => ({
            value: one.ordinal,
            title: one.ordinal === lost.ordinal ? 'this one only' : `class ${one.ordinal}, ${one.words}`,
          }))
        "
      />
    </p>
    <div class="scroll" tabindex="0" role="group" aria-label="Ways to make up for it">
      <div class="ways" role="radiogroup" aria-label="How to make up for it">
        <div v-for="(way, at) in ways" :key="way.how" class="way" :class="{ at: way.how === how }">
          <v-radio
            v-model="how"
            name="how-to-make-up"
            :value="way.how"
            :label="way.words"
            :disabled="Boolean(way.how !== 'drop' && outcomes[at] && 'refused' in outcomes[at]!)"
          />
          <template v-if="can">
            <p v-for="use in way.how === 'spare' ? can.spare : []" :key="use.id" class="which">
              {{ use.title }} <span class="small">on {{ use.when }}</span>
            </p>
            <TickField
              v-for="use in way.how === 'drop' ? can.drop : []"
              :key="use.id"
              class="which"
              :model-value="dropped.includes(use.id)"
              @update:model-value="drop(use.id)"
              >{{ use.title }} <span class="small">{{ use.when }}</span></TickField
            >
            <p v-for="use in way.how === 'shorten' ? can.shorten : []" :key="use.id" class="which">
              {{ use.title }} <span class="small">by {{ use.by }} {{ amountOf(use.by) }}</span>
            </p>
          </template>
          <p class="small">{{ said(outcomes[at]) }}</p>
        </div>
      </div>
      <LostDates :groups="groups" :ways="ways" :outcomes="outcomes" :how="how" />
    </div>
  </CommandPanel>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: var(--space-4) var(--space-7);
  align-items: start;
}
.way {
  border-top: var(--stroke-hair) solid var(--ink);
  padding-top: var(--space-3);
}
.way.at {
  border-top: var(--stroke-strong) solid var(--accent);
}
.scroll {
  max-height: max(200px, min(460px, 100vh - 460px));
  overflow: auto;
}
.which {
  display: block;
  margin-left: var(--space-6);
}
</style>
