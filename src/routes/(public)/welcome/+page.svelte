<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';
	import Entrance from '$lib/ui/business/Entrance.svelte';

	let { data } = $props();
	const YES_NO = [
		{ value: 'yes', label: 'Yes' },
		{ value: 'no', label: 'No' }
	] as const;
</script>

<svelte:head><title>Welcome · Axiometer</title></svelte:head>
<Entrance title="Set up once">
	<p class="mb-4.5">
		Six answers and you can write your first invoice. Everything else is asked when a document needs
		it.
	</p>
	<Form class="grid gap-4" hidden={data.code ? { code: data.code } : {}}>
		{#if !data.code}<Field
				label="Code"
				name="code"
				autocomplete="off"
				hint="It stands in the window in which Axiometer was started: whoever has it owns these books."
			/>{/if}
		<Field
			label="Your own name"
			name="ownerName"
			autocomplete="name"
			hint="The law wants it on every invoice. A trading name can be added in the settings."
		/>
		<Field label="Business address" name="address" rows={3} autocomplete="street-address" />
		<Field
			label="E-mail"
			name="email"
			type="email"
			autocomplete="email"
			hint="For copies of what you send, tests, and news of payments."
		/>
		<Field
			label="Password, at least ten characters"
			name="password"
			type="password"
			autocomplete="new-password"
			hint="It opens your books from any browser that reaches this machine."
		/>
		<div>
			<Segments
				label="Are you registered for VAT?"
				name="vatRegistered"
				value={null}
				options={YES_NO}
			/>
		</div>
		<div>
			<Segments
				label="Do you work for contractors under CIS, the Construction Industry Scheme?"
				name="cisSubcontractor"
				value={null}
				options={YES_NO}
			/>
		</div>
		<p class="quiet">Not sure? Answer no. Both can be changed, from any day, in the settings.</p>
		<div><button class="button filled">Begin</button></div>
	</Form>
	<p class="quiet mt-5">
		You had books already? <a href="/welcome/restore{data.code ? `?code=${data.code}` : ''}"
			>Restore a backup</a
		>.
	</p>
</Entrance>
