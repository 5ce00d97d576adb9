import type { LayoutServerLoad } from './$types';

/** Where no page is found, the frame of the desk still is, for who is signed in. */
export const load: LayoutServerLoad = ({ locals }) => ({ signedIn: locals.signedIn });
