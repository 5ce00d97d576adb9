<script lang="ts">
	import Paper from '$lib/ui/invoices/Paper.svelte';
	import SignForm from '$lib/ui/signing/SignForm.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Sign {data.view.number}</title></svelte:head>
<!-- Whoever holds the phone sees the sheet alone. -->
<div>
	<div class="mx-auto grid max-w-200 gap-4 px-4 pt-4 pb-15 phone:px-0 phone:pt-0">
		<h1 class="sr-only">Job sheet {data.view.number}</h1>
		<Paper
			view={data.view}
			logo={data.view.look.logo && `/settings/letterheads/logo/${data.view.look.logo}`}
			photo={(photo) => `/files/${photo}`}
		/>
		<SignForm
			class="panel px-5 py-4"
			action="/work/sheets/{data.id}/sign"
			of={data.of}
			about="sheet"
		/>
		<p class="px-5"><a href="/work/sheets/{data.id}">Not now</a></p>
	</div>
</div>
