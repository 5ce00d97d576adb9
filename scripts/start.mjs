// Starts Axiometer for real: own data, and stand-ins until real gateways are configured.
import { ensureBuild, ensurePackages } from './setup.mjs';

ensurePackages();
ensureBuild();
const { launch } = await import('./launch.mjs');
await launch({});
