import { parseArgs } from 'node:util';
import { createApp } from './app';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: process.env.PORT ?? '4173' },
    host: { type: 'string', default: '127.0.0.1' },
  },
});

const app = createApp();
try {
  const address = await app.listen({ port: Number(values.port), host: values.host });
  console.log(`\nFresh Reel is running at ${address.replace('127.0.0.1', 'localhost')}\n`);
} catch (error) {
  const busy = (error as { code?: string }).code === 'EADDRINUSE';
  console.error(
    busy ? `Port ${values.port} is taken. Try npm start -- --port 4174.` : (error as Error).message,
  );
  process.exit(1);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void app.close().then(() => process.exit(0)));
