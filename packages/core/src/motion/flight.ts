/** What acts on something that flies, the same all the way. Units a frame, and a frame squared. */
export interface Forces {
  readonly gravity: readonly [number, number];
  /** Speed of the air. */
  readonly wind: readonly [number, number];
  /** The part of its speed against the air that it loses in a frame, for little drag; 0 flies on. */
  readonly drag: number;
}

/** Drag below which there is none: both forms give the same there, to the last digit that shows. */
const NO_DRAG = 1e-6;

/**
 * How far something has flown that set off with a velocity: the closed form of x″ = gravity − drag · (x′ − wind), which
 * gives any moment without those before it.
 * @param age frames since it set off
 */
export function flightAt(
  velocity: readonly [number, number],
  { gravity, wind, drag }: Forces,
  age: number,
): [number, number] {
  const along = (v: number, g: number, w: number) => {
    if (drag < NO_DRAG) return v * age + (g * age * age) / 2;
    const end = w + g / drag;
    return end * age + ((v - end) * -Math.expm1(-drag * age)) / drag;
  };
  return [along(velocity[0], gravity[0], wind[0]), along(velocity[1], gravity[1], wind[1])];
}
