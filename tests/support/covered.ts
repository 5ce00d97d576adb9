// For `npm run coverage`: what was run is written down after each file, since those that run tests side by side are ended before they could.
import { takeCoverage } from 'node:v8';

export const mochaHooks = {
	afterAll(): void {
		if (process.env.NODE_V8_COVERAGE) takeCoverage();
	}
};
