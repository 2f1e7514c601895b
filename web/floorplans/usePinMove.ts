import { computed, ref, shallowRef } from 'vue'
import type { Ref } from 'vue'
import { editAsset, readAsset } from '#contract/assets'
import { eraseSpace, movePin } from '#contract/floorplans'
import type { Floorplan, PlanAsset, PlanSpace } from '#contract/floorplans'
import { isInside, nameSpot, toMillimetre } from '#core/floorplans'
import type { Point } from '#core/floorplans'
import { call, CallProblem, useUndo } from '#web/kit'

/** Moving an asset on a plan: begun, moved by mouse or key, kept or left; and what else changes a plan by hand, each taken back in one press. */
export function usePinMove(plan: Ref<Floorplan | null>, show: (now: Floorplan) => void) {
  const undo = useUndo()
  const moving = shallowRef<{ id: number; tag: string; at: Point } | null>(null)
  const problem = ref('')
  /** The last one that was put into another space than its record says. */
  const put = shallowRef<{ assetId: number; spaceId: number } | null>(null)
  const assetNow = (id: number) => plan.value?.assets.find((one) => one.id === id)

  /** One that has no pin begins where its space is, or, where that is not drawn, in the middle of what is seen. */
  function begin(asset: PlanAsset, middle: () => Point): void {
    const shape = plan.value?.spaces.find(({ id }) => id === asset.placeId)?.shape
    moving.value = { id: asset.id, tag: asset.tag, at: asset.at ?? (shape ? nameSpot(shape) : middle()) }
    put.value = null
    problem.value = ''
  }
  const to = (at: Point) => moving.value && (moving.value = { ...moving.value, at: at.map(toMillimetre) as Point })
  const leave = () => (moving.value = null)

  async function send(asset: { id: number; tag: string }, at: Point | null, version: number): Promise<boolean> {
    problem.value = ''
    try {
      show(await call(movePin, { id: plan.value!.place.id, assetId: asset.id, version, at }))
      return true
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      problem.value = error.reasons[0]?.sentence ?? error.message
      return false
    }
  }
  /** Back to where it was: the version is the one its own move made. */
  const back = (asset: PlanAsset) => async () =>
    show(await call(movePin, { id: plan.value!.place.id, assetId: asset.id, version: asset.pinVersion + 1, at: asset.at }))

  async function keep(): Promise<void> {
    const now = moving.value
    const before = now && assetNow(now.id)
    if (!now || !before) return
    if (!(await send(now, now.at, before.pinVersion))) return
    moving.value = null
    const space = plan.value!.spaces.find(({ shape }) => shape && isInside(now.at, shape))
    put.value = space && space.id !== before.placeId ? { assetId: now.id, spaceId: space.id } : null
    undo.say(`${now.tag} was moved on the plan.`, back(before))
  }
  async function takeOff(asset: PlanAsset): Promise<void> {
    if (await send(asset, null, asset.pinVersion)) undo.say(`${asset.tag} was taken off the plan.`, back(asset))
  }
  async function erase(space: PlanSpace): Promise<void> {
    problem.value = ''
    try {
      show(await call(eraseSpace, { id: plan.value!.place.id, version: plan.value!.version, spaceId: space.id }))
      undo.say(`${space.code} was erased. A file that holds it draws it again.`)
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      problem.value = error.reasons[0]?.sentence ?? error.message
    }
  }

  const elsewhere = computed(() => {
    const said = put.value
    const asset = said && assetNow(said.assetId)
    return asset && asset.placeId !== said.spaceId ? (plan.value?.spaces.find(({ id }) => id === said.spaceId) ?? null) : null
  })
  /** The record follows the pin, by the same rules as on its Portrait. */
  async function bringRecord(): Promise<void> {
    const said = put.value!
    problem.value = ''
    try {
      const { version, placeId } = await call(readAsset, { id: said.assetId })
      const now = await call(editAsset, { id: said.assetId, version, placeId: said.spaceId })
      put.value = null
      undo.say(`Its record says ${plan.value!.spaces.find(({ id }) => id === said.spaceId)!.code} now.`, () =>
        call(editAsset, { id: said.assetId, version: now.version, placeId }),
      )
    } catch (error) {
      if (!(error instanceof CallProblem)) throw error
      problem.value = error.reasons[0]?.sentence ?? error.message
    }
  }
  return { moving, problem, begin, to, keep, leave, takeOff, erase, elsewhere, bringRecord }
}
