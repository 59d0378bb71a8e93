/** What was put on a camera and is on its way to the log: kept on this device over reloads and sleep. */
import type { OnCamera, Planned } from './types'

/** What was set for a shot, and not yet logged. */
export interface PutOn {
  shot: string | null
  on: Partial<OnCamera>
}
export const NOTHING: PutOn = { shot: null, on: {} }

/** What is said of a camera; the focus goes all the time, and goes into the log with the take. */
export const said = (on: Partial<OnCamera>) => Object.keys(on).some((name) => name !== 'focus_m')

/** Whether two cameras are set alike but for the focus, which goes on all the time. */
export const alike = (a: OnCamera, b: OnCamera) =>
  (Object.keys({ ...a, ...b }) as (keyof OnCamera)[]).every(
    (name) => name === 'focus_m' || JSON.stringify(a[name] ?? null) === JSON.stringify(b[name] ?? null),
  )

/** Stops nearer to one another are the same, as for differences from the plan. */
const SAME_STOPS = 1 / 6

interface Last {
  on: OnCamera
  shot: string | null
}

/**
 * What is on a camera when a shot is looked at. What was said for it stays; the focus of another shot never does. As long as
 * nobody said for a new shot whether the camera still is as it was, it is taken to be as planned.
 */
export function onFor(last: Last | null, shot: Planned | null, empty: OnCamera): OnCamera {
  const plan = shot?.on ?? null
  if (!last) return plan ?? empty
  if (last.shot === shot?.shot) return last.on
  // What was booked for no shot holds for every one.
  if (!plan || last.shot === null) return { ...last.on, focus_m: plan?.focus_m ?? null }
  return { ...plan, card: last.on.card, serial: sameLens(plan, last.on) ? last.on.serial : '' }
}

/** The camera as it was for another shot, where that is not as planned for this one: somebody has to say which it is. */
export function asItWas(last: Last | null, shot: Planned | null, empty: OnCamera): OnCamera | null {
  const plan = shot?.on ?? null
  if (!last || !plan || last.shot === null || last.shot === shot?.shot) return null
  const was = { ...last.on, focus_m: plan.focus_m }
  // What nobody stated of it differs from nothing.
  const stated = { ...was, ...unstated(was, plan) }
  if (stated.stop && plan.stop && Math.abs(2 * Math.log2(stated.stop / plan.stop)) <= SAME_STOPS)
    stated.stop = plan.stop
  return alike(stated, onFor(last, shot, empty)) ? null : was
}

const sameLens = (a: OnCamera, b: OnCamera) => a.lens === b.lens && (!b.lens_set || a.lens_set === b.lens_set)

/** Of what is not stated of a camera, what the plan says. */
function unstated(on: OnCamera, plan: OnCamera): Partial<OnCamera> {
  const empty = (value: unknown) => value === null || value === ''
  return Object.fromEntries(
    (Object.keys(on) as (keyof OnCamera)[])
      .filter((name) => empty(on[name]))
      .map((name) => [name, plan[name]]),
  )
}
