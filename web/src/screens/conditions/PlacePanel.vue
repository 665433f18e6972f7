<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useViewpoint } from '../../foundation/useViewpoint'
import SectionKey from '../../look/marks/SectionKey.vue'
import WhyLink from '../../parts/why/WhyLink.vue'
import { type Place, type Shown, type Stand, standWords } from './graph'
import WhatIfPart from './WhatIfPart.vue'

/** A place looked at: its condition, what is wrong with it, and who is where, by section and name. */
const props = defineProps<{
  edition: number
  shown: Shown
  sections: Schemas['ConditionSection'][]
  faults: string[]
  /** All there are. */
  places: Place[]
  canChange: boolean
}>()
const emit = defineEmits<{ close: [] }>()

const viewpoint = useViewpoint()
const panel = useTemplateRef<HTMLElement>('panel')
onMounted(() => panel.value?.scrollIntoView({ block: 'nearest' }))
const place = computed(() => props.shown.places[0]!)
const names = computed(
  () => new Map(props.sections.flatMap((one) => one.students).map((one) => [one.student, one.name])),
)
const groups = computed(() =>
  (['before', 'at', 'past', 'missed'] as Stand[]).flatMap((stand) => {
    const sections = props.sections.flatMap((section) => {
      const ids = place.value.standing.find((one) => one.section === section.section)?.[stand] ?? []
      return ids.length ? [{ section, ids }] : []
    })
    const total = sections.reduce((sum, one) => sum + one.ids.length, 0)
    const words = place.value.of !== 'item' && stand === 'past' ? 'Let in' : standWords[stand]
    return total ? [{ stand, words, sections, total }] : []
  }),
)
const named = ref<string[]>([])
const turn = (key: string) =>
  (named.value = named.value.includes(key) ? named.value.filter((one) => one !== key) : [...named.value, key])
const row = computed(() => `${place.value.of}-${place.value.id}`)
const link = (key: string) => ({
  name: 'outline',
  params: { edition: props.edition },
  query: { ...viewpoint.query.value, row: key },
})
</script>

<template>
  <section ref="panel" class="place" :aria-label="shown.title" @keydown.esc.stop.prevent="emit('close')">
    <p class="ruled-head head">
      <b
        ><span v-if="shown.code">{{ shown.code }}</span> {{ shown.title }}</b
      >
      <button type="button" class="word-button" @click="emit('close')">close</button>
    </p>
    <template v-if="shown.isFolded">
      <ul class="ruled">
        <li v-for="one in shown.places" :key="one.key">
          <router-link :to="link(`${one.of}-${one.id}`)">{{ one.code }} {{ one.title }}</router-link>
          <p class="small">{{ one.condition ?? 'Asked for by others.' }}</p>
        </li>
      </ul>
    </template>
    <template v-else>
      <p>{{ place.condition ?? 'It has no condition of its own; others ask for it.' }}</p>
      <p v-for="fault in faults" :key="fault" class="fault">? {{ fault }}</p>
      <p>
        <router-link :to="link(row)">{{
          canChange ? 'change it in the outline' : 'see it in the outline'
        }}</router-link>
      </p>
      <p v-if="groups.length === 0" class="second">It is for none of the students in view.</p>
      <section v-for="group in groups" :key="group.stand" :aria-label="group.words">
        <p class="ruled-head small">{{ group.words }}: {{ group.total }}</p>
        <ul class="ruled">
          <li v-for="{ section, ids } in group.sections" :key="section.section">
            <button
              type="button"
              class="word-button"
              :aria-expanded="named.includes(`${group.stand} ${section.section}`)"
              @click="turn(`${group.stand} ${section.section}`)"
            >
              <SectionKey :letter="section.letter" :name="section.name" /> {{ ids.length
              }}<span class="said-only">, by name</span>
            </button>
            <ul v-if="named.includes(`${group.stand} ${section.section}`)" class="names small">
              <li v-for="id in ids" :key="id">
                {{ names.get(id) }}
                <WhyLink
                  v-if="place.of === 'item'"
                  :edition="edition"
                  :student="id"
                  :item="place.id"
                  :name="`${names.get(id)}, ${shown.title}`"
                />
              </li>
            </ul>
          </li>
        </ul>
      </section>
      <WhatIfPart :key="place.key" :edition="edition" :place="place" :places="places" />
    </template>
  </section>
</template>

<style scoped>
.place {
  display: grid;
  gap: var(--space-4);
  align-content: start;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: var(--space-4);
}
.ruled > li {
  padding: var(--space-2) 0;
}
.names {
  display: grid;
  gap: var(--space-1);
  padding: var(--space-2) 0 0 var(--space-5);
}
.fault {
  color: var(--accent);
}
</style>
