// For developers: the app from source with reloading, and the stand-ins beside it.
import { ensurePackages } from './setup.mjs';

ensurePackages();
const { launch } = await import('./launch.mjs');
await launch({ dev: true });
