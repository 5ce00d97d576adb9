<script lang="ts">
	import Entrance from '$lib/ui/business/Entrance.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Join · Axiometer</title></svelte:head>
<Entrance title="Hello {data.name}">
	<p class="mb-3.5">Choose a password of your own. You sign in with it and your e-mail address.</p>
	<Form class="grid gap-3.5 justify-items-start [&_.field]:w-full">
		<Field
			label="A new password"
			name="password"
			type="password"
			autocomplete="new-password"
			hint="Three or four words of your own are best."
			required
		/>
		<button class="button filled">Join</button>
	</Form>
</Entrance>
