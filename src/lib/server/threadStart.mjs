// Begins a thread from source: a thread does not inherit what translates TypeScript in the process that starts it.
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.module);
