<!-- An amount in pounds: digits on a phone, the sign in sight. -->
<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import Field from './Field.svelte';

	let { label, value = $bindable(''), ...rest }: ComponentProps<typeof Field> = $props();
</script>

<Field
	label={label.includes('£') ? label : `${label}, £`}
	inputmode="decimal"
	autocomplete="off"
	bind:value
	{...rest}
/>
