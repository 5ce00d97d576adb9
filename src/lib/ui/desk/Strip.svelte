<!-- The strip of places: across the top, and at the thumb on a phone. -->
<script lang="ts">
	import BrickWall from '@lucide/svelte/icons/brick-wall';
	import FileText from '@lucide/svelte/icons/file-text';
	import Landmark from '@lucide/svelte/icons/landmark';
	import MapPin from '@lucide/svelte/icons/map-pin';
	import Percent from '@lucide/svelte/icons/percent';
	import House from '@lucide/svelte/icons/house';
	import Ellipsis from '@lucide/svelte/icons/ellipsis';
	import LogOut from '@lucide/svelte/icons/log-out';
	import Plus from '@lucide/svelte/icons/plus';
	import Ruler from '@lucide/svelte/icons/ruler';
	import Search from '@lucide/svelte/icons/search';
	import Settings from '@lucide/svelte/icons/settings';
	import { page } from '$app/state';
	import Logo from '../parts/Logo.svelte';
	import { isHere } from '../parts/here';
	import { mayDo, type Role } from '$lib/core/people/roles';
	import { placesOf, type Place } from './places';

	let { onfind }: { onfind: () => void } = $props();

	let role = $derived<Role>(page.data.role ?? 'owner');
	let places = $derived(placesOf(role));
	let finds = $derived(mayDo(role, 'work'));
	let writes = $derived(mayDo(role, 'bill'));
	let own = $derived(mayDo(role, 'owner') ? '/settings' : '/you');
	const ICONS: Readonly<Record<string, typeof House>> = {
		'/': House,
		'/work': BrickWall,
		'/billing': FileText,
		'/owed': Ruler,
		'/money': Landmark,
		'/tax': Percent,
		'/site': MapPin
	};
	/** As many as fit beside each other; the others are in More. */
	const AT_THE_THUMB = 4;
	const WHERE_NARROW = 5;
	let path = $derived(page.url.pathname);
	const MORE = ['/more', '/settings', '/you'];
	const inMore = (from: number) =>
		[...MORE, ...places.slice(from).map((place) => place.href)].some((href) => isHere(href, path));
	const CELL =
		'no-underline text-[0.81rem] grid place-items-center content-center gap-0.5 w-full h-full border-t-5 cursor-pointer';
</script>

<header
	class="strip bg-(--strip) text-(--strip-text) h-13.5 flex items-stretch py-0 px-5 gap-1 phone:h-12.5 phone:py-0 phone:px-3"
>
	<a
		class="font-(family-name:--font-heading) font-bold text-[20px] flex items-center gap-2.25 mr-5.5 text-(--strip-mark) no-underline phone:mr-1 max-[1180px]:mr-1.5"
		href="/"
		><Logo /><span class="max-[1180px]:absolute max-[1180px]:[clip-path:inset(50%)]">Axiometer</span
		></a
	>
	<nav class="flex items-stretch phone:hidden" aria-label="Places">
		{#each places as place, index (place.href)}
			{@render top(
				place.href,
				place.label,
				isHere(place.href, path),
				index < WHERE_NARROW ? '' : 'max-[1180px]:hidden'
			)}
		{/each}
		{@render top('/more', 'More', inMore(WHERE_NARROW), 'min-[1181px]:hidden')}
	</nav>
	<span class="flex-1 phone:hidden"></span>
	{#if finds}<button
			class="find self-center flex items-center gap-2.5 bg-(--strip-box) border border-(--strip-edge) text-(--strip-text) rounded-[3px] py-1.5 px-3 min-h-9 cursor-pointer phone:min-h-10 phone:flex-[1_1_auto]"
			type="button"
			onclick={onfind}
		>
			<Search size={17} aria-hidden="true" />
			<span
				class="text-[0.906rem] min-w-32.5 text-left min-[761px]:max-[1000px]:absolute min-[761px]:max-[1000px]:[clip-path:inset(50%)] max-[1180px]:min-w-0 max-[1180px]:whitespace-nowrap"
				>Find or do anything</span
			>
			<kbd class="font-[inherit] text-[0.85rem] max-[1180px]:hidden">Ctrl K</kbd>
		</button>{:else}<span class="flex-1"></span>{/if}
	<a
		class="text-(--strip-text) grid place-items-center w-10.5 h-full cursor-pointer hover:text-(--strip-on) [&.on]:text-(--tape) max-[1180px]:hidden"
		href={own}
		class:on={isHere(own, path)}
		><Settings size={20} aria-hidden="true" /><span class="sr-only"
			>{own === '/you' ? 'You' : 'Settings'}</span
		></a
	>
	<form method="post" action="/sign-out" class="max-[1180px]:hidden">
		<button
			class="text-(--strip-text) grid place-items-center w-10.5 h-full cursor-pointer hover:text-(--strip-on)"
			><LogOut size={20} aria-hidden="true" /><span class="sr-only">Sign out</span></button
		>
	</form>
	{#if writes}<form
			method="post"
			action="/billing/new"
			class="new self-center phone:hidden max-[1180px]:ml-1.5"
		>
			<button
				class="bg-(--tape) text-(--on-tape) font-semibold rounded-[3px] min-h-9 py-1.5 px-3.5 flex gap-1.5 items-center whitespace-nowrap cursor-pointer"
				><Plus size={18} aria-hidden="true" />New invoice</button
			>
		</form>{/if}
</header>

<nav
	class="thumb-strip hidden phone:grid bg-(--strip) h-16 auto-cols-fr grid-flow-col z-30 pb-[env(safe-area-inset-bottom)] [@media(min-height:501px)]:fixed [@media(min-height:501px)]:[inset:auto_0_0_0]"
	aria-label="Places"
>
	{#each places.slice(0, 2) as place (place.href)}{@render thumb(
			place,
			ICONS[place.href] ?? House,
			isHere(place.href, path)
		)}{/each}
	{#if writes}<form method="post" action="/billing/new">
			<button class="{CELL} text-(--tape) font-[650] border-t-transparent"
				><Plus size={24} aria-hidden="true" />New</button
			>
		</form>{/if}
	{#each places.slice(2, AT_THE_THUMB) as place (place.href)}{@render thumb(
			place,
			ICONS[place.href] ?? House,
			isHere(place.href, path)
		)}{/each}
	{@render thumb({ href: '/more', label: 'More', right: 'site' }, Ellipsis, inMore(AT_THE_THUMB))}
</nav>

{#snippet top(href: string, label: string, on: boolean, look: string)}
	<a
		class="text-(--strip-text) no-underline py-0 px-3.5 flex items-center relative hover:text-(--strip-on) [&.on]:text-(--strip-on) [&.on]:font-semibold max-[1180px]:px-2.75 max-[900px]:px-2 whitespace-nowrap [&.on]:after:content-[''] [&.on]:after:absolute [&.on]:after:left-1.5 [&.on]:after:right-1.5 [&.on]:after:bottom-0 [&.on]:after:h-2.25 [&.on]:after:[background:var(--tape-ticks)_bottom_/_100%_6px_no-repeat,var(--tape)] {look}"
		{href}
		class:on
		aria-current={on ? 'page' : undefined}>{label}</a
	>
{/snippet}

{#snippet thumb(place: Place, Icon: typeof House, on: boolean)}
	<a
		class="{CELL} text-(--strip-text) border-t-transparent [&.on]:text-(--strip-on) [&.on]:font-[650] [&.on]:border-t-(--tape)"
		href={place.href}
		class:on
		aria-current={on ? 'page' : undefined}><Icon size={22} aria-hidden="true" />{place.label}</a
	>
{/snippet}
