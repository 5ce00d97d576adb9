<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import BusinessFields from '$lib/ui/business/BusinessFields.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Entrance from '$lib/ui/business/Entrance.svelte';
</script>

<svelte:head><title>Welcome · Axiometer</title></svelte:head>
<Entrance title="Set up once" wide>
	<p class="mb-4.5">
		Your name and address are what the law needs on an invoice. Everything else can wait.
	</p>
	<Form>
		<BusinessFields values={{}} first />
		<fieldset class="mb-4.5">
			<legend class="[font:650_1.15rem_var(--font-heading)] mb-2.5">A password</legend>
			<Field
				label="Password, at least ten characters"
				name="password"
				type="password"
				autocomplete="new-password"
				required
				hint="It opens your books from any browser that reaches this machine."
			/>
		</fieldset>
		<button class="button filled">Begin</button>
	</Form>
</Entrance>
