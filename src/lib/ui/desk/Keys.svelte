<!-- The keys of the app. -->
<script lang="ts">
	import { KEYS } from './keyboard';
</script>

{#each KEYS as group (group.name)}
	<section class="mb-4">
		<h3 class="mb-1 text-[1.05rem]">{group.name}</h3>
		<dl>
			{#each group.keys as [keys, does] (keys)}
				<div class="grid grid-cols-[130px_1fr] gap-x-3 py-1 border-b border-b-(--hair)">
					<dt class="mono font-semibold">{keys}</dt>
					<dd>{does}</dd>
				</div>
			{/each}
		</dl>
	</section>
{/each}
