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

<header class="strip">
	<a class="logo" href="/"><Logo /><span>Axiometer</span></a>
	<nav aria-label="Places">
		{#each places as place (place.href)}
			<a
				href={place.href}
				class:on={place.here(path)}
				aria-current={place.here(path) ? 'page' : undefined}>{place.label}</a
			>
		{/each}
	</nav>
	<span class="gap"></span>
	<button class="find" type="button" onclick={onfind}>
		<Search size={17} aria-hidden="true" />
		<span>Find or do anything</span>
		<kbd>Ctrl K</kbd>
	</button>
	<a class="icon small-only" href="/customers" class:on={path.startsWith('/customers')}
		><Users size={20} aria-hidden="true" /><span class="sr-only">Customers</span></a
	>
	<a class="icon" href="/settings" class:on={path.startsWith('/settings')}
		><Settings size={20} aria-hidden="true" /><span class="sr-only">Settings</span></a
	>
	<form method="post" action="/sign-out" class="out">
		<button class="icon"
			><LogOut size={20} aria-hidden="true" /><span class="sr-only">Sign out</span></button
		>
	</form>
	<form method="post" action="/billing/new" class="new">
		<button><Plus size={18} aria-hidden="true" />New invoice</button>
	</form>
</header>

<nav class="thumbs" aria-label="Places">
	{#each places.slice(0, 2) as place (place.href)}
		<a
			href={place.href}
			class:on={place.here(path)}
			aria-current={place.here(path) ? 'page' : undefined}
			><place.icon size={22} aria-hidden="true" />{place.label}</a
		>
	{/each}
	<form method="post" action="/billing/new">
		<button class="add"><Plus size={24} aria-hidden="true" />New</button>
	</form>
	{#each places.slice(2, 4) as place (place.href)}
		<a
			href={place.href}
			class:on={place.here(path)}
			aria-current={place.here(path) ? 'page' : undefined}
			><place.icon size={22} aria-hidden="true" />{place.label}</a
		>
	{/each}
</nav>

<style>
	.strip {
		background: var(--strip);
		color: var(--strip-text);
		height: 54px;
		display: flex;
		align-items: stretch;
		padding: 0 20px;
		gap: 4px;
	}
	.logo {
		font-family: var(--font-heading);
		font-weight: 700;
		font-size: 20px;
		display: flex;
		align-items: center;
		gap: 9px;
		margin-right: 22px;
		color: #efe8da;
		text-decoration: none;
	}
	nav {
		display: flex;
		align-items: stretch;
	}
	.strip nav a {
		color: var(--strip-text);
		text-decoration: none;
		padding: 0 14px;
		display: flex;
		align-items: center;
		position: relative;
	}
	.strip nav a:hover,
	.icon:hover {
		color: var(--strip-on);
	}
	.strip nav a.on {
		color: var(--strip-on);
		font-weight: 600;
	}
	.strip nav a.on::after {
		content: '';
		position: absolute;
		left: 6px;
		right: 6px;
		bottom: 0;
		height: 9px;
		background:
			repeating-linear-gradient(90deg, #17212b 0 1.5px, transparent 1.5px 8px) bottom / 100% 6px
				no-repeat,
			var(--tape);
	}
	.gap {
		flex: 1;
	}
	.find {
		align-self: center;
		display: flex;
		align-items: center;
		gap: 10px;
		background: #26323d;
		border: 1px solid #5a6772;
		color: #d0d6da;
		border-radius: 3px;
		padding: 6px 12px;
		min-height: 36px;
		cursor: pointer;
	}
	.find span {
		font-size: 0.906rem;
		min-width: 130px;
		text-align: left;
	}
	kbd {
		font: inherit;
		font-size: 0.85rem;
	}
	.icon {
		color: var(--strip-text);
		display: grid;
		place-items: center;
		width: 42px;
		height: 100%;
		cursor: pointer;
	}
	.icon.on {
		color: var(--tape);
	}
	.new {
		align-self: center;
	}
	.new button {
		background: var(--tape);
		color: var(--on-tape);
		font-weight: 600;
		border-radius: 3px;
		min-height: 36px;
		padding: 6px 14px;
		display: flex;
		gap: 6px;
		align-items: center;
		cursor: pointer;
	}
	.thumbs,
	.small-only {
		display: none;
	}
	@media (max-width: 1180px) {
		kbd {
			display: none;
		}
		.logo {
			margin-right: 6px;
		}
		.logo span {
			position: absolute;
			clip-path: inset(50%);
		}
		.strip nav a {
			padding: 0 9px;
			white-space: nowrap;
		}
		.find span {
			min-width: 0;
			white-space: nowrap;
		}
	}
	@media (max-width: 940px) and (min-width: 761px) {
		.find span {
			position: absolute;
			clip-path: inset(50%);
		}
		.strip nav a {
			padding: 0 7px;
		}
		.new button {
			padding: 6px 10px;
			white-space: nowrap;
		}
	}
	@media (max-width: 760px) {
		.strip {
			height: 50px;
			padding: 0 12px;
		}
		.strip nav,
		.new {
			display: none;
		}
		.small-only {
			display: grid;
		}
		.find {
			min-height: 40px;
			flex: 1 1 auto;
		}
		.gap {
			display: none;
		}
		.out {
			display: none;
		}
		.logo {
			margin-right: 0;
		}
		.thumbs {
			position: fixed;
			inset: auto 0 0 0;
			height: 64px;
			background: var(--strip);
			display: grid;
			grid-template-columns: repeat(5, 1fr);
			z-index: 30;
			padding-bottom: env(safe-area-inset-bottom);
		}
		.thumbs a,
		.thumbs button {
			color: var(--strip-text);
			text-decoration: none;
			font-size: 0.81rem;
			display: grid;
			place-items: center;
			align-content: center;
			gap: 2px;
			width: 100%;
			height: 100%;
			border-top: 5px solid transparent;
		}
		.thumbs a.on {
			color: var(--strip-on);
			font-weight: 650;
			border-top-color: var(--tape);
		}
		.thumbs .add {
			color: var(--tape);
			font-weight: 650;
		}
	}
</style>
