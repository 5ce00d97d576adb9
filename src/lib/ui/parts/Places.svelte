<!-- The pages of one place, side by side under its title. -->
<script lang="ts">
	import { page } from '$app/state';
	import { isHere } from './here';

	interface Props {
		label: string;
		/** `also`: further pages that belong to it. */
		pages: { href: string; label: string; count?: number; also?: string }[];
	}
	let { label, pages }: Props = $props();
	let here = $derived(
		pages
			.flatMap(({ href, also }) => [
				{ href, under: href },
				...(also ? [{ href, under: also }] : [])
			])
			.filter(({ under }) => isHere(under, page.url.pathname))
			.sort((a, b) => b.under.length - a.under.length)[0]?.href
	);
</script>

<nav
	class="flex gap-y-0.5 gap-x-5 flex-wrap mb-4 border-b border-b-(--hair) phone:gap-y-0 phone:gap-x-4.5 phone:flex-nowrap phone:overflow-x-auto"
	aria-label={label}
>
	{#each pages as one (one.href)}
		<a
			class="pt-2.25 pb-2 px-0 no-underline text-(--ink-2) border-b-4 border-b-transparent -mb-px phone:whitespace-nowrap phone:min-h-11 hover:text-(--ink) [&.on]:text-(--ink) [&.on]:font-semibold [&.on]:border-(--tape)"
			href={one.href}
			class:on={one.href === here}
			aria-current={one.href === here ? 'page' : undefined}
			>{one.label}{#if one.count}
				<span class="numbers text-[0.85rem] font-normal text-(--ink-2)"
					>{one.count.toLocaleString('en-GB')}</span
				>{/if}</a
		>
	{/each}
</nav>
