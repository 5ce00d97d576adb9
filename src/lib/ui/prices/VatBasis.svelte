<!-- Whether prices are with VAT or without: it stands as the head of the prices. -->
<script lang="ts">
	interface Props {
		includes: boolean;
		onchange: (includes: boolean) => void;
		class?: string;
		path?: string;
	}
	let { includes, onchange, class: look = '', path }: Props = $props();
</script>

<select
	class="bg-transparent text-(--ink-2) cursor-pointer min-h-6.5 [text-align-last:right] {look}"
	aria-label="Prices"
	data-path={path}
	value={includes ? 'with' : 'without'}
	onchange={(event) => onchange(event.currentTarget.value === 'with')}
>
	<option value="without">Price without VAT</option>
	<option value="with">Price with VAT</option>
</select>
