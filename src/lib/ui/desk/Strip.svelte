<!-- The strip of places: across the top, and at the thumb on a phone. -->
<script lang="ts">
	import BrickWall from '@lucide/svelte/icons/brick-wall';
	import FileText from '@lucide/svelte/icons/file-text';
	import House from '@lucide/svelte/icons/house';
	import Landmark from '@lucide/svelte/icons/landmark';
	import LogOut from '@lucide/svelte/icons/log-out';
	import Percent from '@lucide/svelte/icons/percent';
	import Plus from '@lucide/svelte/icons/plus';
	import Ruler from '@lucide/svelte/icons/ruler';
	import Search from '@lucide/svelte/icons/search';
	import Settings from '@lucide/svelte/icons/settings';
	import Users from '@lucide/svelte/icons/users';
	import { page } from '$app/state';
	import Logo from '../parts/Logo.svelte';

	let { onfind }: { onfind: () => void } = $props();

	const places = [
		{ href: '/', label: 'Today', icon: House, here: (path: string) => path === '/' },
		{
			href: '/work',
			label: 'Work',
			icon: BrickWall,
			here: (path: string) => path.startsWith('/work')
		},
		{
			href: '/billing',
			label: 'Billing',
			icon: FileText,
			here: (path: string) => path.startsWith('/billing')
		},
		{
			href: '/owed',
			label: 'Owed',
			icon: Ruler,
			here: (path: string) => path.startsWith('/owed')
		},
		{
			href: '/money',
			label: 'Money in',
			icon: Landmark,
			here: (path: string) => path.startsWith('/money')
		},
		{
			href: '/tax',
			label: 'Tax',
			icon: Percent,
			here: (path: string) => path.startsWith('/tax')
		},
		{
			href: '/customers',
			label: 'Customers',
			icon: Users,
			here: (path: string) => path.startsWith('/customers')
		}
	];
	let path = $derived(page.url.pathname);
</script>

<header
	class="strip bg-(--strip) text-(--strip-text) h-13.5 flex items-stretch py-0 px-5 gap-1 phone:h-12.5 phone:py-0 phone:px-3"
>
	<a
		class="font-(family-name:--font-heading) font-bold text-[20px] flex items-center gap-2.25 mr-5.5 text-[#efe8da] no-underline phone:mr-0 max-[1180px]:mr-1.5"
		href="/"
		><Logo /><span class="max-[1180px]:absolute max-[1180px]:[clip-path:inset(50%)]">Axiometer</span
		></a
	>
	<nav class="flex items-stretch phone:hidden" aria-label="Places">
		{#each places as place (place.href)}
			<a
				class="text-(--strip-text) no-underline py-0 px-3.5 flex items-center relative hover:text-(--strip-on) [&.on]:text-(--strip-on) [&.on]:font-semibold max-[1180px]:py-0 max-[1180px]:px-2.25 min-[761px]:max-[940px]:px-1.75 max-[1180px]:whitespace-nowrap [&.on]:after:content-[''] [&.on]:after:absolute [&.on]:after:left-1.5 [&.on]:after:right-1.5 [&.on]:after:bottom-0 [&.on]:after:h-2.25 [&.on]:after:[background:repeating-linear-gradient(90deg,#17212b_0_1.5px,transparent_1.5px_8px)_bottom_/_100%_6px_no-repeat,var(--tape)]"
				href={place.href}
				class:on={place.here(path)}
				aria-current={place.here(path) ? 'page' : undefined}>{place.label}</a
			>
		{/each}
	</nav>
	<span class="flex-1 phone:hidden"></span>
	<button
		class="find self-center flex items-center gap-2.5 bg-[#26323d] border border-[#5a6772] text-[#d0d6da] rounded-[3px] py-1.5 px-3 min-h-9 cursor-pointer phone:min-h-10 phone:flex-[1_1_auto]"
		type="button"
		onclick={onfind}
	>
		<Search size={17} aria-hidden="true" />
		<span
			class="text-[0.906rem] min-w-32.5 text-left min-[761px]:max-[940px]:absolute min-[761px]:max-[940px]:[clip-path:inset(50%)] max-[1180px]:min-w-0 max-[1180px]:whitespace-nowrap"
			>Find or do anything</span
		>
		<kbd class="font-[inherit] text-[0.85rem] max-[1180px]:hidden">Ctrl K</kbd>
	</button>
	<a
		class="text-(--strip-text) place-items-center w-10.5 h-full cursor-pointer hidden phone:grid hover:text-(--strip-on) [&.on]:text-(--tape)"
		href="/customers"
		class:on={path.startsWith('/customers')}
		><Users size={20} aria-hidden="true" /><span class="sr-only">Customers</span></a
	>
	<a
		class="text-(--strip-text) grid place-items-center w-10.5 h-full cursor-pointer hover:text-(--strip-on) [&.on]:text-(--tape)"
		href="/settings"
		class:on={path.startsWith('/settings')}
		><Settings size={20} aria-hidden="true" /><span class="sr-only">Settings</span></a
	>
	<form method="post" action="/sign-out" class="phone:hidden">
		<button
			class="text-(--strip-text) grid place-items-center w-10.5 h-full cursor-pointer hover:text-(--strip-on)"
			><LogOut size={20} aria-hidden="true" /><span class="sr-only">Sign out</span></button
		>
	</form>
	<form method="post" action="/billing/new" class="new self-center phone:hidden">
		<button
			class="bg-(--tape) text-(--on-tape) font-semibold rounded-[3px] min-h-9 py-1.5 px-3.5 flex gap-1.5 items-center whitespace-nowrap cursor-pointer min-[761px]:max-[940px]:px-2.5"
			><Plus size={18} aria-hidden="true" />New invoice</button
		>
	</form>
</header>

<nav
	class="items-stretch hidden phone:fixed phone:[inset:auto_0_0_0] phone:h-16 phone:bg-(--strip) phone:grid phone:grid-cols-[repeat(5,1fr)] phone:z-30 phone:pb-[env(safe-area-inset-bottom)]"
	aria-label="Places"
>
	{#each places.slice(0, 2) as place (place.href)}
		<a
			class="phone:text-(--strip-text) phone:no-underline phone:text-[0.81rem] phone:grid phone:place-items-center phone:content-center phone:gap-0.5 phone:w-full phone:h-full phone:border-t-5 phone:border-t-transparent phone:[&.on]:text-(--strip-on) phone:[&.on]:font-[650] phone:[&.on]:border-t-(--tape)"
			href={place.href}
			class:on={place.here(path)}
			aria-current={place.here(path) ? 'page' : undefined}
			><place.icon size={22} aria-hidden="true" />{place.label}</a
		>
	{/each}
	<form method="post" action="/billing/new">
		<button
			class="add phone:no-underline phone:text-[0.81rem] phone:grid phone:place-items-center phone:content-center phone:gap-0.5 phone:w-full phone:h-full phone:border-t-5 phone:border-t-transparent phone:text-(--tape) phone:font-[650]"
			><Plus size={24} aria-hidden="true" />New</button
		>
	</form>
	{#each places.slice(2, 4) as place (place.href)}
		<a
			class="phone:text-(--strip-text) phone:no-underline phone:text-[0.81rem] phone:grid phone:place-items-center phone:content-center phone:gap-0.5 phone:w-full phone:h-full phone:border-t-5 phone:border-t-transparent phone:[&.on]:text-(--strip-on) phone:[&.on]:font-[650] phone:[&.on]:border-t-(--tape)"
			href={place.href}
			class:on={place.here(path)}
			aria-current={place.here(path) ? 'page' : undefined}
			><place.icon size={22} aria-hidden="true" />{place.label}</a
		>
	{/each}
</nav>
