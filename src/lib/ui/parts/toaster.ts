// What keeps the notices that are shown; loaded with them.
import { createToaster } from '@skeletonlabs/skeleton-svelte';

export const toaster = createToaster({ placement: 'bottom', max: 3, overlap: false, gap: 8 });
