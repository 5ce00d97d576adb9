// Begins a thread from source: a thread does not inherit what translates TypeScript in the process that starts it.
import { constants, setPriority } from 'node:os';
import { register } from 'tsx/esm/api';

// Whoever asks for a page goes before what is computed beside it. On Linux a priority belongs to the thread that sets it; elsewhere it
// would be the whole server's.
if (process.platform === 'linux') setPriority(constants.priority.PRIORITY_BELOW_NORMAL);

register();
