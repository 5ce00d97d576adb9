// What the framework's own build provides and nothing here needs, so that routes can be called as they are.
import { register } from 'node:module';

const hooks = `
export const resolve = (name, context, next) =>
	name === '$app/server'
		? { url: 'data:text/javascript,export {}', shortCircuit: true }
		: next(name, context);
`;
register(`data:text/javascript,${encodeURIComponent(hooks)}`);
