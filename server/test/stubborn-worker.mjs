// A thread for tests: it computes for ever, for one request or for several together, runs out of memory, or answers a moment later, as it is told.
import { parentPort, workerData } from 'node:worker_threads';

const { watched } = workerData;
const forEver = () => {
  for (;;);
};
const COMPUTING = {
  'for ever': forEver,
  'for ever together': forEver,
  'too much': () => {
    const all = [];
    for (;;) all.push(new Array(1_000_000).fill(all.length));
  },
};

parentPort.on('message', ({ id, input }) => {
  const compute = COMPUTING[input];
  if (!compute)
    return void setTimeout(() => parentPort.postMessage({ id, ms: 0, done: { said: input } }), 50);
  Atomics.store(watched, 1, input.endsWith('together') ? 0 : id);
  Atomics.store(watched, 0, id);
  compute();
});
