<script setup lang="ts">
import type { Mesh } from '@moray/core/gears/mesh'
import { sideOf, type Flank, type PushedFlank } from '@moray/core/gears/flank'
import { PerspectiveCamera, Scene, Vector3, type Material } from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'
import { Projector, RenderableFace } from 'three/addons/renderers/Projector.js'
import { onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useOwn } from '../stores/own.ts'
import { toothPair, type ToothPair } from './tooth-pair.ts'

/** A few teeth in the round, to be turned: so that toe and heel, top and root, drive and coast cannot be taken for one another. */
const props = defineProps<{
  mesh: Mesh
  pushed: PushedFlank
  flank: Flank
  /** The patch on that flank, as it is seen or computed. */
  outline?: [number, number][] | undefined
}>()

const own = useOwn()
const frame = useTemplateRef<HTMLElement>('frame')
const picture = useTemplateRef<Picture>('picture')
const WORDS = [
  { text: 'toe', along: -1.12, up: 0 },
  { text: 'heel', along: 1.12, up: 0 },
  { text: 'top', along: 0, up: 1.35 },
  { text: 'root', along: 0, up: -1.1 },
]
const words = ref<{ text: string; x: number; y: number }[]>([])
const HEIGHT = 300

const scene = new Scene()
const camera = new PerspectiveCamera(30, 1, 1, 4000)
const projector = new Projector()
let controls: OrbitControls | undefined
let pair: ToothPair | undefined
/** What is used of a canvas and its pen. */
interface Picture {
  width: number
  height: number
  getContext: (kind: '2d') => Pen
}
interface Pen {
  fillStyle: string
  strokeStyle: string
  lineWidth: number
  globalAlpha: number
  clearRect: (x: number, y: number, w: number, h: number) => void
  beginPath: () => void
  moveTo: (x: number, y: number) => void
  lineTo: (x: number, y: number) => void
  closePath: () => void
  fill: () => void
  stroke: () => void
}
const colour = (name: string) => window.getComputedStyle(frame.value!).getPropertyValue(name).trim()
const at = (p: readonly number[]) => new Vector3(p[0], p[1], p[2])

function build() {
  scene.clear()
  pair = toothPair(props.mesh, sideOf(props.flank, props), props.outline, {
    gear: colour('--gear'),
    pinion: colour('--line-strong'),
    edge: colour('--steel'),
    lit: colour('--sheet'),
    patch: colour('--lamp'),
  })
  scene.add(pair.group)
}
/** From where the flank is seen: straight at it, from the toe, or from the heel. */
function look(from: 'flank' | 'toe' | 'heel') {
  if (!pair || !controls) return
  const centre = at(pair.centre)
  const along = at(pair.place(1, 0)).sub(at(pair.place(-1, 0)))
  const up = at(pair.place(0, 1))
    .sub(at(pair.place(0, -1)))
    .normalize()
  const size = along.length()
  along.normalize()
  const lean = from === 'flank' ? 0 : from === 'heel' ? 1.6 : -1.6
  const way = at(pair.out).add(along.multiplyScalar(lean)).add(up.clone().multiplyScalar(0.55)).normalize()
  camera.up.copy(up)
  camera.position.copy(centre).add(way.multiplyScalar(2.7 * size))
  controls.target.copy(centre)
  controls.update()
  draw()
}
function draw() {
  if (!pair || !frame.value) return
  const canvas = picture.value!
  const pen = canvas.getContext('2d')
  const { elements } = projector.projectScene(scene, camera, true, true)
  pen.clearRect(0, 0, canvas.width, canvas.height)
  // painter's order: what is behind is drawn first; plain shapes, so that it looks like the other drawings
  for (const e of elements) {
    if (!(e instanceof RenderableFace)) continue
    pen.beginPath()
    for (const [i, v] of [e.v1, e.v2, e.v3].entries()) {
      const [x, y] = [
        ((v.positionScreen.x + 1) / 2) * canvas.width,
        ((1 - v.positionScreen.y) / 2) * canvas.height,
      ]
      if (i) pen.lineTo(x, y)
      else pen.moveTo(x, y)
    }
    pen.closePath()
    pen.globalAlpha = (e.material as Material).opacity
    pen.fillStyle = pen.strokeStyle = e.color.getStyle()
    pen.fill()
    if (pen.globalAlpha === 1) pen.stroke()
  }
  const [w, h] = [frame.value.clientWidth, HEIGHT]
  words.value = WORDS.map(({ text, along, up }) => {
    const p = at(pair!.place(along, up)).project(camera)
    return { text, x: ((p.x + 1) / 2) * w, y: ((1 - p.y) / 2) * h }
  })
}
function fit() {
  const w = frame.value!.clientWidth
  // sharp on screens with finer pixels
  const finer = window.devicePixelRatio
  picture.value!.width = w * finer
  picture.value!.height = HEIGHT * finer
  camera.aspect = w / HEIGHT
  camera.updateProjectionMatrix()
}
onMounted(() => {
  fit()
  controls = new OrbitControls(camera, frame.value as unknown as HTMLElement)
  controls.enablePan = false
  controls.enableZoom = false
  controls.addEventListener('change', draw)
  build()
  look('flank')
})
onBeforeUnmount(() => controls?.dispose())
watch(
  () => [props.mesh, props.flank],
  () => {
    build()
    look('flank')
  },
)
watch(
  () => [props.outline, own.night],
  () => {
    build()
    draw()
  },
  { flush: 'post' },
)
</script>

<template>
  <figure class="pair">
    <div
      ref="frame"
      class="frame"
      role="img"
      :aria-label="`A tooth of the gear in the round, its ${flank} flank lit; the pinion lifted off`"
    >
      <canvas ref="picture" aria-hidden="true" />
      <span v-for="w in words" :key="w.text" class="word" :style="{ left: `${w.x}px`, top: `${w.y}px` }">{{
        w.text
      }}</span>
    </div>
    <figcaption class="small soft">
      The {{ flank }} flank is lit, the pinion lifted off. Turn it with the finger, or look
      <button type="button" class="texty" @click="look('flank')">at the flank</button>
      <button type="button" class="texty" @click="look('toe')">from the toe</button>
      <button type="button" class="texty" @click="look('heel')">from the heel</button>
    </figcaption>
  </figure>
</template>

<style scoped>
.pair {
  margin: 0.4rem 0;
}
.frame {
  position: relative;
  height: 300px;
  border: 1px solid var(--line);
  overflow: hidden;
  touch-action: none;
  cursor: grab;
}
.frame canvas {
  display: block;
  width: 100%;
  height: 100%;
}
.word {
  position: absolute;
  transform: translate(-50%, -50%);
  font-weight: 700;
  background: var(--paper);
  padding: 0 0.25rem;
  pointer-events: none;
}
figcaption button {
  margin-left: 0.5rem;
}
</style>
