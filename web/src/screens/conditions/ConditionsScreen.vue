<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { nextTick, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { useLevels } from '../../foundation/levels'
import { useScreenKeys } from '../../foundation/useKeys'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import { askWhyHere } from '../../parts/why/useWhyKey'
import TitleBlock from '../../parts/TitleBlock.vue'
import ConditionList from './ConditionList.vue'
import ConditionsTools from './ConditionsTools.vue'
import PlaceNode from './PlaceNode.vue'
import PlacePanel from './PlacePanel.vue'
import WaitsPart from './WaitsPart.vue'
import { WIDTH } from './layout'
import { useConditions } from './useConditions'

/** Who gets through? What waits for what, left to right, and how many students are before, at and past each place. */
const props = defineProps<{ edition: number }>()
const levels = useLevels()
const router = useRouter()
const viewpoint = useViewpoint()

const canvas = useTemplateRef<HTMLElement>('canvas')
const { width: room } = useElementSize(canvas)
const screen = useConditions(props, room)
const { answer, all, unit, units, folded, asList, beside, off, student, sections, shown, picture, chosen, lit } = screen
const areFaults = ref(false)

async function choose(key: string | null): Promise<void> {
  screen.choose(key)
  await nextTick()
}
/** Moves by keys from place to place, and keeps what is chosen in view. */
async function move(way: 'left' | 'right' | 'up' | 'down'): Promise<void> {
  const next = screen.go(way)
  if (next === null || asList.value) return
  await choose(next)
  const node = canvas.value?.querySelector<HTMLElement>(`[data-place="${CSS.escape(next)}"] button`)
  node?.focus()
  node?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
}
async function askWhy(): Promise<void> {
  const place = chosen.value?.places[0]
  if (student.value === null || place?.of !== 'item' || chosen.value!.isFolded) return askWhyHere()
  await router.push({
    name: 'one-student',
    params: { edition: props.edition, student: student.value },
    query: { ...viewpoint.query.value, why: place.id },
  })
}
useScreenKeys([
  { key: 'ArrowRight', words: 'the next place that waits for this one', run: () => void move('right') },
  { key: 'ArrowLeft', words: 'back to what it waits for', run: () => void move('left') },
  { key: 'ArrowDown', words: 'the place below', run: () => void move('down') },
  { key: 'ArrowUp', words: 'the place above', run: () => void move('up') },
  { key: 'l', words: 'as a picture, or in words', run: () => (asList.value = !asList.value) },
  { key: 'y', words: 'why it is open to the student followed, or not', run: () => void askWhy() },
  { key: 'Escape', words: '', run: () => void choose(null) },
])

const shownOf = (key: string) => shown.value.find((one) => one.key === key)!
const faultWords = (key: string) => screen.faultsOf(shownOf(key).places.map((one) => one.key)).map((one) => one.words)
const path = (points: readonly { x: number; y: number }[]) => points.map(({ x, y }) => `${x},${y}`).join(' ')
const isLit = (from: string, to: string) => lit.value === null || (lit.value.has(from) && lit.value.has(to))
const titleOf = (key: string) => {
  const one = shown.value.find((place) => place.key === key)
  return one ? `${one.code} ${one.title}`.trim() : key
}
</script>

<template>
  <main class="body">
    <ProblemNote v-if="answer.problem.value && !all" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!all" class="second none" role="status">Finding out who gets through …</p>
    <p v-else-if="all.places.length === 0" class="second none">
      Nothing waits for anything yet. Open {{ levels.item.a }} in the outline and press “No condition.” to set one, or
      choose several there to have them open one after another.
    </p>
    <template v-else>
      <ConditionsTools
        v-model:unit="unit"
        v-model:student="student"
        v-model:folded="folded"
        v-model:beside="beside"
        v-model:as-list="asList"
        :answer="all"
        :units="units"
        :off="off"
        @toggle="screen.toggle"
        @faults="areFaults = !areFaults"
      />
      <div class="halves">
        <div ref="canvas" class="canvas" tabindex="-1">
          <ConditionList
            v-if="asList"
            :shown="shown"
            :in-view="screen.inView.value"
            :chosen="chosen?.key ?? null"
            :faults-of="screen.faultsOf"
            @choose="choose"
          />
          <div v-else class="picture" :style="{ width: `${picture.width}px`, height: `${picture.height}px` }">
            <svg :width="picture.width" :height="picture.height" aria-hidden="true">
              <g
                v-for="line in picture.lines"
                :key="`${line.from} ${line.to}`"
                :class="{ dim: !isLit(line.from, line.to) }"
              >
                <polyline :points="path(line.points)" />
                <text :x="line.words.x" :y="line.words.y" :text-anchor="line.words.anchor">{{ line.asks }}</text>
              </g>
            </svg>
            <ul aria-label="Places with conditions, and what they wait for">
              <li
                v-for="place in picture.places"
                :key="place.key"
                :data-place="place.key"
                :style="{
                  left: `${place.x}px`,
                  top: `${place.y}px`,
                  width: `${WIDTH}px`,
                  height: `${place.height}px`,
                }"
              >
                <PlaceNode
                  :shown="shownOf(place.key)"
                  :sections="sections"
                  :beside="beside"
                  :student="student"
                  :faults="faultWords(place.key)"
                  :chosen="chosen?.key === place.key"
                  :dim="lit !== null && !lit.has(place.key)"
                  @choose="choose(chosen?.key === place.key ? null : place.key)"
                />
              </li>
            </ul>
          </div>
        </div>
        <aside class="aside">
          <section v-if="areFaults" aria-label="To check">
            <p class="ruled-head">To check</p>
            <ul class="ruled faults">
              <li v-for="fault in all.faults" :key="fault.words">
                <span>{{ fault.words }}</span>
                <button
                  v-if="fault.places[0]"
                  type="button"
                  class="word-button small"
                  :aria-label="`show ${titleOf(fault.places[0])}`"
                  @click="choose(fault.places[0])"
                >
                  show it
                </button>
              </li>
            </ul>
          </section>
          <PlacePanel
            v-if="chosen"
            :key="chosen.key"
            :edition="edition"
            :shown="chosen"
            :sections="sections"
            :faults="faultWords(chosen.key)"
            :places="all.places"
            :can-change="all.canChange"
            @close="choose(null)"
          />
          <WaitsPart
            v-else-if="!areFaults"
            :edition="edition"
            :waits="screen.waits.value"
            :sections="sections"
            @choose="choose"
          />
        </aside>
      </div>
    </template>
  </main>
  <TitleBlock v-if="all" :edition="edition" :facts="screen.facts.value" :can-change="all.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 0;
}
.none {
  padding: var(--space-7) 0;
}
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 236px;
  gap: var(--space-7);
  min-height: 0;
}
.canvas,
.aside {
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-9);
}
.picture {
  position: relative;
}
.picture li {
  position: absolute;
}
.picture polyline {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: var(--stroke-line);
}
.picture text {
  font-size: var(--size-small);
  fill: var(--ink-2);
}
.picture svg .dim {
  opacity: 0.35;
}
.aside {
  display: grid;
  gap: var(--space-6);
  align-content: start;
}
.faults > li {
  display: grid;
  gap: var(--space-1);
  padding: var(--space-2) 0;
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
