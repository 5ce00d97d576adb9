<!-- The pages of one place, side by side under its title. -->
<script lang="ts">
	import { page } from '$app/state';

	interface Props {
		label: string;
		pages: { href: string; label: string; count?: number }[];
	}
	let { label, pages }: Props = $props();
	let here = $derived(
		pages
			.map((one) => one.href)
			.filter((href) => page.url.pathname === href || page.url.pathname.startsWith(`${href}/`))
			.sort((a, b) => b.length - a.length)[0]
	);
</script>

<nav aria-label={label}>
	{#each pages as one (one.href)}
		<a
			href={one.href}
			class:on={one.href === here}
			aria-current={one.href === here ? 'page' : undefined}
			>{one.label}{#if one.count}
				<span class="numbers">{one.count.toLocaleString('en-GB')}</span>{/if}</a
		>
	{/each}
</nav>

<style>
	nav {
		display: flex;
		gap: 2px 20px;
		flex-wrap: wrap;
		margin-bottom: 16px;
		border-bottom: 1px solid var(--hair);
	}
	a {
		padding: 9px 0 8px;
		text-decoration: none;
		color: var(--ink-2);
		border-bottom: 4px solid transparent;
		margin-bottom: -1px;
	}
	a:hover {
		color: var(--ink);
	}
	a.on {
		color: var(--ink);
		font-weight: 600;
		border-color: var(--tape);
	}
	.numbers {
		font-size: 0.85rem;
		font-weight: 400;
		color: var(--ink-2);
	}
	@media (max-width: 760px) {
		nav {
			gap: 0 18px;
			flex-wrap: nowrap;
			overflow-x: auto;
		}
		a {
			white-space: nowrap;
			min-height: 44px;
		}
	}
</style>
