import { newId } from './ids';

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;

describe('ids', () => {
  it('are version 4, whether the browser makes them or not', () => {
    expect(newId()).toMatch(UUID);
    const own = crypto;
    Object.defineProperty(globalThis, 'crypto', {
      value: { getRandomValues: (b: Uint8Array) => own.getRandomValues(b) },
      configurable: true,
    });
    try {
      const made = Array.from({ length: 50 }, newId);
      for (const id of made) expect(id).toMatch(UUID);
      expect(new Set(made).size).toBe(50);
    } finally {
      Object.defineProperty(globalThis, 'crypto', { value: own, configurable: true });
    }
  });
});
