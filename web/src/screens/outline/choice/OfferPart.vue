<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import FilePicker from '../../../parts/files/FilePicker.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import PicksPart from './PicksPart.vue'

/** What a choice offers, and who has picked what. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()

const MOST = 20
const offer = computed(() => props.item.offers!)
const isOpen = ref(false)
interface Line {
  option: string | null
  title: string
  words: string
  room: number | null
  picture: Schemas['OptionPictureForm'] | null
}
const options = ref<Line[]>([])
const picks = ref<number | null>(1)
const isFinal = ref(false)
const { version, overTheirs } = usePinned(props.item.version)

/** As it stands, in the form in which it is changed. */
const stored = computed(() => ({
  options: offer.value.options.map(({ option, title, words, room, picture }): Line => ({
    option: option ?? null,
    title,
    words: words ?? '',
    room: room ?? null,
    picture: picture ? { ...picture } : null,
  })),
  picks: offer.value.picks,
  isFinal: offer.value.isFinal,
}))
function open(): void {
  options.value = stored.value.options.map((one) => ({ ...one, picture: one.picture && { ...one.picture } }))
  picks.value = offer.value.picks
  isFinal.value = offer.value.isFinal
  version.value = props.item.version
  isOpen.value = true
}

const set = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/offer-options')
const wanted = computed(() => ({ options: options.value, picks: picks.value ?? 1, isFinal: isFinal.value }))
const isWhole = computed(() => options.value.length > 1 && options.value.every(({ title }) => title.trim() !== ''))
const isSame = computed(() => JSON.stringify(wanted.value) === JSON.stringify(stored.value))
const request = computed(() =>
  !isOpen.value || !isWhole.value || isSame.value
    ? null
    : { item: props.item.id, ...wanted.value, version: version.value },
)
const reach = useReach(request, set.preview)

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(set.problem.value)
  void save()
}
async function save(): Promise<void> {
  if (!request.value) return
  await set.run(request.value).then(
    () => (isOpen.value = false),
    () => undefined,
  )
}
const roomWords = (room: number | null | undefined) => (room ? `room for ${room} of a section` : '')
</script>

<template>
  <section class="offer" aria-label="Options">
    <template v-if="!isOpen">
      <p class="line">
        <span>
          Each student picks {{ offer.picks === 1 ? 'one' : `up to ${offer.picks}` }} of these{{
            offer.isFinal ? ', for good.' : ', and can change it until it closes.'
          }}
        </span>
        <button v-if="canChange" type="button" class="word-button" @click="open">change the options</button>
      </p>
      <ul class="ruled list">
        <li v-for="one in offer.options" :key="one.option ?? one.title">
          <b>{{ one.title }}</b>
          <span class="small">{{ roomWords(one.room) }}</span>
          <span v-if="one.words" class="second words">{{ one.words }}</span>
          <img v-if="one.picture" :src="one.picture.source" :alt="one.picture.words" />
        </li>
      </ul>
      <PicksPart :edition="edition" :item="item" :can-change="canChange" />
    </template>
    <form
      v-else
      class="editor"
      aria-label="The options of this choice"
      @submit.prevent="save"
      @keydown.esc.stop="isOpen = false"
    >
      <fieldset v-for="(one, at) in options" :key="one.option ?? `new ${at}`" class="one">
        <legend class="small">Option {{ at + 1 }}</legend>
        <p class="line">
          <WordField v-model="one.title" class="what" :label="`Name of option ${at + 1}`" :maxlength="100" />
          <span>room for</span>
          <NumberField v-model="one.room" :label="`Room in option ${at + 1}`" :min="1" :max="500" optional />
          <span>of each section, empty for any number</span>
          <button
            v-if="options.length > 2"
            type="button"
            class="word-button small"
            :aria-label="`Take out ${one.title || `option ${at + 1}`}`"
            @click="options.splice(at, 1)"
          >
            take out
          </button>
        </p>
        <v-textarea
          v-model="one.words"
          rows="2"
          auto-grow
          maxlength="2000"
          :aria-label="`What option ${at + 1} is about`"
          placeholder="what it is about"
        />
        <div v-if="one.picture" class="pictured">
          <img :src="one.picture.source" :alt="one.picture.words" />
          <WordField
            v-model="one.picture.words"
            class="what"
            :label="`What the picture of option ${at + 1} shows`"
            placeholder="what it shows"
            :maxlength="300"
          />
          <button
            type="button"
            class="word-button small"
            :aria-label="`Take out the picture of option ${at + 1}`"
            @click="one.picture = null"
          >
            take out the picture
          </button>
        </div>
        <FilePicker
          v-else
          one
          accept="image/*"
          :label="`Picture of option ${at + 1}`"
          words="Add a picture"
          @sent="([file]) => file && (one.picture = { source: `/api/me/uploads/${file.upload}/bytes`, words: '' })"
        />
      </fieldset>
      <p class="line">
        <button
          v-if="options.length < MOST"
          type="button"
          class="word-button"
          @click="options.push({ option: null, title: '', words: '', room: null, picture: null })"
        >
          Add an option
        </button>
        <span>Each student picks up to</span>
        <NumberField v-model="picks" label="How many a student picks" :min="1" :max="19" />
        <TickField v-model="isFinal" label="what is picked stays picked" />
      </p>
      <ProblemNote v-if="set.problem.value" :problem="set.problem.value">
        <v-btn v-if="set.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
      </ProblemNote>
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="!request || set.busy.value">Save the options</v-btn>
        <v-btn @click="isOpen = false">Leave them as they are</v-btn>
        <span class="small" role="status">{{ reach }}</span>
      </p>
    </form>
  </section>
</template>

<style scoped>
.offer {
  display: grid;
  gap: var(--space-4);
}
.list {
  list-style: none;
}
.list li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  padding: var(--space-3) 0;
}
.words {
  flex-basis: 100%;
  max-width: 80ch;
}
.pictured {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-2) var(--space-5);
}
img {
  max-width: 220px;
  max-height: 140px;
  object-fit: contain;
}
.one {
  display: grid;
  gap: var(--space-2);
  border: 0;
  padding: 0;
}
.what {
  width: 320px;
  flex: none;
}
</style>
