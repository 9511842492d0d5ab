/** AsyncStorage in memory, with a limit that can be set: for tests. */
export const held = new Map<string, string>();
export const room = { left: Number.POSITIVE_INFINITY };

export function createAsyncStorage() {
  return {
    getItem: async (key: string) => held.get(key) ?? null,
    getMany: async (keys: string[]) => Object.fromEntries(keys.map((k) => [k, held.get(k) ?? null])),
    setMany: async (entries: Record<string, string>) => {
      const size = Object.values(entries).reduce((sum, v) => sum + v.length, 0);
      if (size > room.left) throw new Error('QuotaExceededError: the quota has been exceeded');
      room.left -= size;
      for (const [key, value] of Object.entries(entries)) held.set(key, value);
    },
    removeMany: async (keys: string[]) => {
      for (const key of keys) {
        room.left += held.get(key)?.length ?? 0;
        held.delete(key);
      }
    },
    getAllKeys: async () => [...held.keys()],
  };
}

const atOnce = new Map<string, string>();

/** The storage that writes at once. */
export default {
  getItem: async (key: string) => atOnce.get(key) ?? null,
  setItem: async (key: string, value: string) => void atOnce.set(key, value),
  removeItem: async (key: string) => void atOnce.delete(key),
  getAllKeys: async () => [...atOnce.keys()],
};
