<script lang="ts">
	import { enhance } from '$app/forms';
	import BusinessFields from '$lib/ui/business/BusinessFields.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Entrance from '$lib/ui/business/Entrance.svelte';

	let { form } = $props();
	let errors = $derived<Record<string, string>>(form?.fields ?? {});
</script>

<svelte:head><title>Welcome · Axiometer</title></svelte:head>
<Entrance title="Set up once" wide>
	<p class="lead">
		Your name and address are what the law needs on an invoice. Everything else can wait.
	</p>
	{#if form?.message}<p class="wrong" role="alert">
			{Object.keys(errors).length > 1
				? `${Object.keys(errors).length} things are not right yet.`
				: form.message}
		</p>{/if}
	<form
		method="post"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<BusinessFields values={form?.values ?? {}} {errors} first />
		<fieldset>
			<legend>A password</legend>
			<Field
				label="Password, at least ten characters"
				name="password"
				type="password"
				autocomplete="new-password"
				required
				error={errors.password}
				hint="It opens your books from any browser that reaches this machine."
			/>
		</fieldset>
		<button class="button filled">Begin</button>
	</form>
</Entrance>

<style>
	.lead {
		margin-bottom: 18px;
	}
	legend {
		font: 650 1.15rem var(--font-heading);
		margin-bottom: 10px;
	}
	fieldset {
		margin-bottom: 18px;
	}
</style>
