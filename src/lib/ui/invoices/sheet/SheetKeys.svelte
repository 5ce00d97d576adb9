<!-- The keys of the sheet, while there is room for them. -->
<script lang="ts">
	import { KEYS } from '../../desk/keyboard';

	const SHOWN = ['Enter', 'Alt ↑ ↓', 'Ctrl D', 'Alt Delete', 'Ctrl Z', 'Alt W', 'Ctrl Enter'];
	const keys = KEYS[1]!.keys.filter(([key]) => SHOWN.includes(key));
</script>

<dl class="keys quiet mt-3 [&_div]:grid [&_div]:grid-cols-[110px_1fr] [&_div]:py-0.75">
	{#each keys as [key, does] (key)}
		<div>
			<dt class="font-(family-name:--font-mono) text-(--ink)">{key}</dt>
			<dd>{does}</dd>
		</div>
	{/each}
	<div>
		<dt class="font-(family-name:--font-mono) text-(--ink)">?</dt>
		<dd>lists all keys</dd>
	</div>
</dl>
