<script lang="ts">
  import { distanceWithUnit } from '../../lib/format'
  import type { FieldAnswer, FieldAsk, Unit } from '../../lib/types'

  interface Props {
    answer: FieldAnswer
    room: NonNullable<FieldAsk['room']>
    unit: Unit
  }
  let { answer, room, unit }: Props = $props()

  let width = $state(500)
  const HEIGHT = 190
  const PAD = 14
  const first = $derived(answer.answers[0])
  const distance = $derived(first?.distance_m ?? 1)
  const behind = $derived(room.length_m == null ? 0 : (room.behind_subject_m ?? 0.5))
  const camera = $derived(room.length_m == null ? 0.6 : (room.behind_camera_m ?? 0.6))
  /** Metres from the far wall (or the subject) to the end of what is shown. */
  const extent = $derived(Math.max(distance + behind + camera, room.length_m ?? 0) * 1.03)
  const fieldWidth = $derived(first?.width_m ?? 0)
  const scale = $derived(Math.min((width - 2 * PAD) / extent, (HEIGHT - 46) / Math.max(fieldWidth, 0.6)))
  const left = $derived((width - extent * scale) / 2)
  // The far wall, or the subject, stands right.
  const x = (fromEnd: number) => left + (extent - fromEnd) * scale
  const y = HEIGHT / 2
  const subject = $derived(x(behind))
  const sensor = $derived(x(behind + distance))
  const wall = $derived(room.length_m == null ? null : x(room.length_m))
  const beyond = $derived(answer.longest_m !== null && distance > answer.longest_m)
</script>

<figure class="drawing">
  <figcaption class="soft">Seen from above, to scale</figcaption>
  <div class="canvas own" bind:clientWidth={width}>
    <svg
      {width}
      height={HEIGHT}
      role="img"
      aria-label="Camera {distanceWithUnit(distance, unit)} from the subject, seen from above"
    >
      {#if wall !== null}
        <line class="room" x1={wall} x2={wall} y1="8" y2={HEIGHT - 26} />
        <line class="room" x1={x(0)} x2={x(0)} y1="8" y2={HEIGHT - 26} />
      {/if}
      {#if first && fieldWidth > 0}
        <path
          class="cone"
          d="M{sensor} {y}L{subject} {y - (fieldWidth / 2) * scale}V{y + (fieldWidth / 2) * scale}Z"
        />
        <line
          class="field"
          x1={subject}
          x2={subject}
          y1={y - (fieldWidth / 2) * scale}
          y2={y + (fieldWidth / 2) * scale}
        />
      {/if}
      <ellipse
        class="person"
        cx={subject}
        cy={y}
        rx={Math.max(0.13 * scale, 2)}
        ry={Math.max(0.23 * scale, 3)}
      />
      <rect
        class="camera"
        class:beyond
        x={sensor - Math.max(camera * scale * 0.5, 8)}
        y={y - Math.max(0.09 * scale, 4)}
        width={Math.max(camera * scale * 0.5, 8)}
        height={Math.max(0.18 * scale, 8)}
      />
      <line class="measure" x1={sensor} x2={subject} y1={HEIGHT - 18} y2={HEIGHT - 18} />
      <text class="figure" x={(sensor + subject) / 2} y={HEIGHT - 4} text-anchor="middle"
        >{distanceWithUnit(distance, unit)}</text
      >
      {#if beyond && answer.longest_m !== null}
        <line
          class="limit"
          x1={x(behind + answer.longest_m)}
          x2={x(behind + answer.longest_m)}
          y1="8"
          y2={HEIGHT - 26}
        />
      {/if}
    </svg>
  </div>
</figure>

<style>
  .room {
    fill: none;
    stroke: var(--line-strong);
    stroke-width: 3;
  }
  .cone {
    fill: var(--light-fill);
    stroke: var(--light);
  }
  .field {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .person {
    fill: var(--ink-soft);
  }
  .camera {
    fill: var(--cell-strong);
    stroke: var(--ink);
  }
  .camera.beyond {
    stroke: var(--bad);
    stroke-width: 2;
  }
  .limit {
    stroke: var(--bad);
    stroke-dasharray: 5 4;
  }
  .measure {
    stroke: var(--ink-soft);
  }
  text {
    font-size: 12.5px;
    fill: var(--ink);
  }
</style>
