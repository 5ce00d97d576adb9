<!-- What works with scripts alone says so where there are none. -->
<script lang="ts">
	/** What can be done instead, where there is something. */
	let { instead = '' }: { instead?: string } = $props();
</script>

<noscript>
	<p class="panel py-2.5 px-3.5 mb-3 border-l-6 border-l-(--tape)">
		This is worked out as it is typed, so it needs scripts, which are turned off in this browser.
		{instead}
	</p>
</noscript>
