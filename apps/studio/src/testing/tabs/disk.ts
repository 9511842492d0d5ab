/** What happens to the browser's database. */
export interface Weather {
  /** It gives no more room. */
  full: boolean;
  /** It answers every call with a fault. */
  gone: boolean;
  /** It does not answer until it is quick again. */
  slow: boolean;
}

/** A tab, as far as the browser knows: what is killed does nothing any more. */
export interface Life {
  alive: boolean;
}

/** The browser's storage, as all tabs have it. */
export class Disk {
  readonly database = new Map<string, string>();
  /** The storage that writes at once. */
  readonly atOnce = new Map<string, string>();
  readonly weather: Weather = { full: false, gone: false, slow: false };
  private waiting: (() => void)[] = [];

  /** @param onWrite told of every write, before it is done: key, what was there, what will be */
  constructor(private readonly onWrite: (key: string, before: string | undefined, now: string) => void) {}

  /** It answers as it should; calls that waited are answered, in their order. */
  heal(): void {
    Object.assign(this.weather, { full: false, gone: false, slow: false });
    for (const answer of this.waiting.splice(0)) answer();
  }

  private async call<T>(life: Life, work: () => T): Promise<T> {
    if (this.weather.slow) await new Promise<void>((resolve) => this.waiting.push(resolve));
    await Promise.resolve();
    if (!life.alive) return new Promise<T>(() => undefined);
    if (this.weather.gone) throw new Error('UnknownError: the connection to the database is lost');
    return work();
  }

  /** The package of the storage, as one tab has it. */
  storageOf(life: Life) {
    const { database, atOnce } = this;
    const call = <T>(work: () => T) => this.call(life, work);
    const createAsyncStorage = () => ({
      getItem: (key: string) => call(() => database.get(key) ?? null),
      getMany: (keys: string[]) =>
        call(() => Object.fromEntries(keys.map((k) => [k, database.get(k) ?? null]))),
      setMany: (entries: Record<string, string>) =>
        call(() => {
          if (this.weather.full) throw new Error('QuotaExceededError: the quota has been exceeded');
          for (const [key, value] of Object.entries(entries)) {
            this.onWrite(key, database.get(key), value);
            database.set(key, value);
          }
        }),
      removeMany: (keys: string[]) =>
        call(() => {
          for (const key of keys) database.delete(key);
        }),
      getAllKeys: () => call(() => [...database.keys()]),
    });
    const soon = async <T>(work: () => T) => (life.alive ? work() : new Promise<T>(() => undefined));
    const immediate = {
      getItem: (key: string) => soon(() => atOnce.get(key) ?? null),
      // It is written before the call returns.
      setItem: (key: string, value: string) => soon(() => void atOnce.set(key, value)),
      removeItem: (key: string) => soon(() => void atOnce.delete(key)),
      getAllKeys: () => soon(() => [...atOnce.keys()]),
    };
    return { __esModule: true, createAsyncStorage, default: immediate };
  }
}
