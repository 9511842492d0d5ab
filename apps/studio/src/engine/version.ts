let known: Promise<string> | undefined;

/** The version of the app that is running: a hash of what it was built from. */
export function appVersion(): Promise<string> {
  known ??= fetch('/version.json')
    .then((reply) => reply.json() as Promise<{ version: string }>)
    // A server that makes the app as it is asked for has none.
    .then(
      ({ version }) => version,
      () => 'unknown',
    );
  return known;
}
