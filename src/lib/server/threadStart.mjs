// Begins a thread from source: a thread does not inherit what translates TypeScript in the process that starts it.
import { setPriority } from 'node:os';
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

// The thread that answers everybody goes first. Only Linux has a priority for each thread; elsewhere it would be that of all of them.
if (process.platform === 'linux') setPriority(10);
register();
// Translating happens on yet another thread, and waiting for that one alone keeps no thread alive.
const alive = setInterval(() => undefined, 1000);
await import(workerData.module);
clearInterval(alive);
