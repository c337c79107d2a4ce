/* Serves the application on PORT (4380), and says where it is once its first page has been made: what comes after is quick. */
import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';

const port = process.env.PORT ?? '4380';
const address = `http://127.0.0.1:${port}`;
const server = spawn(
  process.execPath,
  ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', port],
  { stdio: ['ignore', 'pipe', 'inherit'], env: { ...process.env, HARD_PEDAL_LAUNCHED: '1' } },
);
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));

// Not before it has the port: another server may answer there.
await new Promise((resolve) => server.stdout.on('data', (text) => String(text).includes('Ready') && resolve()));
let refused = false;
for (;;) {
  const made = await fetch(address).then(
    (page) => page.text().then(() => page),
    () => null,
  );
  if (made) {
    refused = made.status === 503;
    break;
  }
  await wait(100);
}
console.log(
  refused
    ? `\nHard Pedal has not started; ${address} says why as well  (Ctrl+C ends it)`
    : `\nHard Pedal is at ${address}  (Ctrl+C ends it)`,
);
