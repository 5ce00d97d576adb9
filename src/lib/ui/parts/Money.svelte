<!-- An amount: digits on a phone, the sign in sight. -->
<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import { unitOf, type Currency } from '$lib/core/money/currencies';
	import Field from './Field.svelte';

	let {
		label,
		value = $bindable(''),
		currency,
		...rest
	}: ComponentProps<typeof Field> & { currency?: Currency | undefined } = $props();
</script>

<Field
	label={label.includes('£') ? label : `${label}, ${unitOf(currency)}`}
	inputmode="decimal"
	autocomplete="off"
	bind:value
	{...rest}
/>
