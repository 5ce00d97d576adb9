<!-- In which ways somebody may pay. All of them is how it is unless something else is said. -->
<script lang="ts">
	import { ALL_WAYS, type PayWays } from '$lib/core/payWays';

	interface Props {
		label: string;
		ways: PayWays | null;
		error?: string | undefined;
		onchange: (ways: PayWays) => void;
		path?: string;
	}
	let { label, ways, error, onchange, path }: Props = $props();
	const WORDS: Record<keyof PayWays, string> = {
		card: 'by card, on its page',
		bank: 'from their bank, on its page',
		transfer: 'by a transfer to your account'
	};
	let shown = $derived(ways ?? ALL_WAYS);
</script>

<fieldset class="gap-0" data-path={path}>
	<legend class="quiet mb-0.5">{label}</legend>
	<div class="flex flex-wrap gap-x-5">
		{#each Object.keys(WORDS) as (keyof PayWays)[] as way (way)}
			<label class="check min-h-9 items-center"
				><input
					type="checkbox"
					checked={shown[way]}
					onchange={(event) => onchange({ ...shown, [way]: event.currentTarget.checked })}
				/>
				{WORDS[way]}</label
			>
		{/each}
	</div>
	{#if error}<p class="wrong">{error}</p>{/if}
</fieldset>
