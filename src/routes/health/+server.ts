import type { RequestHandler } from './$types';

/** Says that the app is up, for whoever starts it. */
export const GET: RequestHandler = () => new Response('ok');
