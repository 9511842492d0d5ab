/** Something that is held. */
export interface Lock {
  /** Whether it still is, where that is known by looking alone. */
  isHeld?(): Promise<boolean>;
}

/** What the app uses of the browser's lock manager (W3C Web Locks). */
export interface Locks {
  /**
   * Does something while it holds a lock.
   * @param options `ifAvailable` does it without the lock when another has it; `steal` takes it from the other
   * @throws {DOMException} an AbortError when it was taken away, or the signal's reason when it is not waited for any more
   */
  request<T>(
    name: string,
    options: { readonly ifAvailable?: boolean; readonly steal?: boolean; readonly signal?: AbortSignal },
    work: (lock: Lock | null) => T | Promise<T>,
  ): Promise<T>;
}
