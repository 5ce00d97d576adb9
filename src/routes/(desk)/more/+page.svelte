<!-- Everything that has no room in the strip of a phone or a small window. -->
<script lang="ts">
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { CATALOGUE } from '$lib/ui/desk/catalogue';
	import { page } from '$app/state';
	import { mayDo, type Role } from '$lib/core/people/roles';
	import { placesOf } from '$lib/ui/desk/places';

	let role = $derived<Role>(page.data.role ?? 'owner');
	/** What is the owner's alone. */
	const OWN = /^\/(settings(?!\/(kinds|letterheads|wordings))|tax)/;
	let groups = $derived([
		{
			name: 'More places',
			entries: [
				...placesOf(role).slice(role === 'owner' || role === 'office' ? 4 : 0),
				{ href: '/you', label: 'You' },
				...(mayDo(role, 'owner') ? [{ href: '/settings', label: 'Settings' }] : [])
			]
		},
		...(mayDo(role, 'work') ? CATALOGUE : [])
			.map(({ name, entries }) => ({
				name,
				entries: entries.filter(
					(entry) => entry.more && (role === 'owner' || !OWN.test(entry.href))
				)
			}))
			.filter((group) => group.entries.length > 0)
	]);
</script>

<svelte:head><title>More · Axiometer</title></svelte:head>
<div class="page">
	<h1 class="mb-3.5">More</h1>
	<div class="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-4 items-start">
		{#each groups as group (group.name)}
			<nav class="panel" aria-label={group.name}>
				<h2 class="px-4 pt-3 pb-1.5 text-[1.05rem]">{group.name}</h2>
				<ul>
					{#each group.entries as entry (entry.label)}
						<li class="border-t border-t-(--hair)">
							<a
								class="flex items-center justify-between gap-2 min-h-11.5 px-4 no-underline hover:bg-(--tape-tint)"
								href={entry.href}
								>{entry.label}<ChevronRight
									size={17}
									class="text-(--ink-2)"
									aria-hidden="true"
								/></a
							>
						</li>
					{/each}
				</ul>
			</nav>
		{/each}
	</div>
	<form class="mt-5" method="post" action="/sign-out">
		<button class="button">Sign out</button>
	</form>
</div>
