<!-- How the business is reached by who has a question about a bill. -->
<script lang="ts">
	let { name, reach }: { name: string; reach: { phone: string; email: string } } = $props();
</script>

{#if reach.phone || reach.email}
	<p class="text-[0.95rem]">
		A question? {name}:
		{#if reach.phone}<a class="inline-block min-h-6" href="tel:{reach.phone.replace(/[^+\d]/g, '')}"
				>{reach.phone}</a
			>{/if}
		{#if reach.phone && reach.email}<span aria-hidden="true">·</span>{/if}
		{#if reach.email}<a class="inline-block min-h-6 wrap-anywhere" href="mailto:{reach.email}"
				>{reach.email}</a
			>{/if}
	</p>
{/if}
