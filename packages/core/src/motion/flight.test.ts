import fc from 'fast-check';
import { type Forces, flightAt } from './flight';

/** The same by steps: the classical Runge–Kutta method of fourth order (Abramowitz and Stegun, 25.5.10). */
function stepped(velocity: readonly [number, number], forces: Forces, age: number): [number, number] {
  const steps = 400;
  const h = age / steps;
  return [0, 1].map((axis) => {
    const pull = (v: number) => forces.gravity[axis]! - forces.drag * (v - forces.wind[axis]!);
    let [x, v] = [0, velocity[axis]!];
    for (let i = 0; i < steps; i++) {
      const [a1, v1] = [pull(v), v];
      const [a2, v2] = [pull(v + (h / 2) * a1), v + (h / 2) * a1];
      const [a3, v3] = [pull(v + (h / 2) * a2), v + (h / 2) * a2];
      const [a4, v4] = [pull(v + h * a3), v + h * a3];
      x += (h / 6) * (v1 + 2 * v2 + 2 * v3 + v4);
      v += (h / 6) * (a1 + 2 * a2 + 2 * a3 + a4);
    }
    return x;
  }) as [number, number];
}

const some = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const pair = (most: number) => fc.tuple(some(most), some(most));

it('is where going step by step arrives', () => {
  fc.assert(
    fc.property(
      pair(40),
      pair(0.5),
      pair(20),
      fc.double({ min: 0, max: 0.4, noNaN: true }),
      fc.double({ min: 0, max: 240, noNaN: true }),
      (velocity, gravity, wind, drag, age) => {
        const forces = { gravity, wind, drag };
        const [x, y] = flightAt(velocity, forces, age);
        const [sx, sy] = stepped(velocity, forces, age);
        expect(Math.abs(x - sx)).toBeLessThan(1e-3 + Math.abs(sx) * 1e-4);
        expect(Math.abs(y - sy)).toBeLessThan(1e-3 + Math.abs(sy) * 1e-4);
      },
    ),
  );
});

it('does not jump where drag begins', () => {
  const at = (drag: number) => flightAt([9, -4], { gravity: [0, 0.2], wind: [3, 0], drag }, 90);
  expect(at(1.1e-6)[0]).toBeCloseTo(at(0.9e-6)[0], 1);
  expect(at(1.1e-6)[1]).toBeCloseTo(at(0.9e-6)[1], 1);
});

it('comes to rest in still air, and goes with the wind in the end', () => {
  const still = flightAt([10, 0], { gravity: [0, 0], wind: [0, 0], drag: 0.1 }, 10_000);
  expect(still[0]).toBeCloseTo(100, 6);
  const far = { gravity: [0, 0], wind: [2, -1], drag: 0.1 } as const;
  const [a, b] = [flightAt([10, 0], far, 1000), flightAt([10, 0], far, 1001)];
  expect([b[0] - a[0], b[1] - a[1]].map((v) => Number(v.toFixed(6)))).toEqual([2, -1]);
});
