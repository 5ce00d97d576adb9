<!-- What is to be signed, and the place to sign: whoever holds the phone sees this alone. -->
<script lang="ts">
	import type { DocumentView } from '$lib/core/documents/viewTypes';
	import Paper from '../invoices/Paper.svelte';
	import SignForm from './SignForm.svelte';

	interface Props {
		view: DocumentView;
		/** Its own page, to which `/sign` is added. */
		at: string;
		of: string;
		about: 'sheet' | 'invoice';
		firm?: boolean;
	}
	let { view, at, of, about, firm = true }: Props = $props();
</script>

<svelte:head><title>Sign {view.number}</title></svelte:head>
<div class="mx-auto grid max-w-200 gap-4 px-4 pt-4 pb-15 phone:px-0 phone:pt-0">
	<h1 class="sr-only">{view.title} {view.number}</h1>
	<Paper
		{view}
		logo={view.look.logo && `/settings/letterheads/logo/${view.look.logo}`}
		photo={(photo) => `/files/${photo}`}
	/>
	<SignForm class="panel px-5 py-4" action="{at}/sign" {of} {about} {firm} />
	<p class="px-5"><a href={at}>Not now</a></p>
</div>
