/** Types of answers come from the paths: a call that is pointed elsewhere fails the check of types. */
import { describe, expectTypeOf, it } from 'vitest'
import * as client from './client'
import type { BenchView, DepthView, KitMatrix } from './types'

type Answer<F extends (...asked: never[]) => Promise<{ data?: unknown }>> = NonNullable<
  Awaited<ReturnType<F>>['data']
>

describe('what a call answers', () => {
  it('is what its path answers', () => {
    expectTypeOf<Answer<typeof client.viewBench>>().toEqualTypeOf<BenchView>()
    expectTypeOf<Answer<typeof client.readMatrix>>().toEqualTypeOf<KitMatrix>()
  })

  it('is not what another path answers', () => {
    // @ts-expect-error the path of the Bench does not answer depth
    const wrong: (...asked: Parameters<typeof client.viewBench>) => Promise<client.Outcome<DepthView>> =
      client.viewBench
    expectTypeOf(wrong).toBeFunction()
  })

  it('comes with what is stored where a write can be too late', () => {
    type Refused = NonNullable<Awaited<ReturnType<typeof client.writeBench>>['problem']>
    expectTypeOf<NonNullable<Refused['stored']>['version']>().toEqualTypeOf<number>()
  })
})
