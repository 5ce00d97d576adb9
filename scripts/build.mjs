// Builds the app unless what is built is that of these sources already.
import { ensureBuild } from './setup.mjs';

ensureBuild();
