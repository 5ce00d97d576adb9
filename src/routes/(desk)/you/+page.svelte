<script lang="ts">
	import { untrack } from 'svelte';
	import { QrCode } from '@skeletonlabs/skeleton-svelte';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { ROLE_NAMES } from '$lib/core/people/roles';
	import Passkeys from '$lib/ui/business/Passkeys.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';

	let { data } = $props();
	let looks = $state<HTMLFormElement>();
	/** Shown once, and kept nowhere. */
	let codes = $state<string[]>([]);
	// It stays the same while somebody types a code of it.
	const proposed = untrack(() => data.proposed);
</script>

{#snippet password()}
	<Field label="Your password" name="current" type="password" autocomplete="current-password" />
{/snippet}

<svelte:head><title>You · Axiometer</title></svelte:head>
<div class="page max-w-235">
	<h1 class="mb-1">{data.person?.name || 'You'}</h1>
	{#if data.person}<p class="mb-4">
			{ROLE_NAMES[data.person.role].name}: {ROLE_NAMES[data.person.role].may}.
		</p>{/if}
	<div class="grid grid-cols-[repeat(auto-fit,minmax(min(100%,320px),1fr))] gap-4 items-start">
		<section class="panel grid gap-3 py-4.5 px-5">
			<h2>Light or dark</h2>
			<Form bind:root={looks} action="?/look">
				<Segments
					label="How it looks"
					quiet
					name="look"
					value={data.look}
					options={[
						{ value: 'light', label: 'Light' },
						{ value: 'dark', label: 'Dark' },
						{ value: 'device', label: 'As the device' }
					]}
					onchange={(value) => {
						document.documentElement.dataset.mode = value;
						setTimeout(() => looks?.requestSubmit());
					}}
				/>
				<noscript><button class="button">Keep it</button></noscript>
			</Form>
		</section>
		<Form class="panel grid gap-3 py-4.5 px-5" action="?/password">
			<h2>Password</h2>
			<Field
				label="The password now"
				name="current"
				type="password"
				autocomplete="current-password"
			/>
			<Field label="The new one" name="password" type="password" autocomplete="new-password" />
			<div><button class="button">Change the password</button></div>
		</Form>
		<section class="panel grid gap-3 py-4.5 px-5">
			<h2>Second factor</h2>
			{#if codes.length}
				<p>
					<b>It counts from now on.</b> Keep these recovery codes where your phone is not: each lets you
					in once, and they are shown only now.
				</p>
				<ul class="mono grid grid-cols-2 gap-1">
					{#each codes as code (code)}<li>{code}</li>{/each}
				</ul>
			{:else if data.factor}
				<p>
					A code of your phone is asked for when you sign in. {data.factor.recovery} recovery codes are
					left.
				</p>
				<Form class="grid gap-3" action="?/factorOff" done="Your password alone is enough again.">
					{@render password()}
					<div><button class="button">Turn it off</button></div>
				</Form>
			{:else if proposed}
				<p>
					A code that an app on your phone shows, besides the password. Scan this with the app, then
					type what it shows.
				</p>
				<div class="scheme-light bg-[#fff] p-3 w-fit">
					<QrCode value={proposed.address}
						><QrCode.Frame class="size-40"><QrCode.Pattern /></QrCode.Frame></QrCode
					>
				</div>
				<p class="quiet">
					Or type it in: <span class="mono wrap-anywhere">{proposed.secret}</span>
				</p>
				<Form
					class="grid gap-3"
					action="?/factorOn"
					hidden={{ secret: proposed.secret }}
					ondone={(answer) => (codes = (answer.codes as string[]) ?? [])}
				>
					<Field
						label="The code it shows"
						name="code"
						inputmode="numeric"
						autocomplete="one-time-code"
						maxlength={8}
					/>
					{@render password()}
					<div><button class="button">Turn it on</button></div>
				</Form>
			{/if}
		</section>
		<Passkeys keys={data.passkeys} />
		<section class="panel grid gap-3 py-4.5 px-5">
			<h2>Where you are signed in</h2>
			<ul class="grid gap-2">
				{#each data.sessions as one, index (one.name)}
					<li class="flex flex-wrap items-center justify-between gap-x-3">
						<span
							>{one.device || 'A browser'}<span class="quiet block"
								>{one.current ? 'this one' : `last used ${displayMoment(one.seenAt)}`}</span
							></span
						>
						{#if !one.current}<Form
								action="?/endSession"
								hidden={{ name: one.name }}
								done="Signed out there."
								><button class="button plain"
									>Sign out <span class="sr-only"
										>{one.device || 'a browser'}, number {index + 1}</span
									></button
								></Form
							>{/if}
					</li>
				{/each}
			</ul>
			<div class="flex flex-wrap gap-2.5">
				<form method="post" action="/sign-out"><button class="button">Sign out here</button></form>
				{#if data.sessions.length > 1}<Form action="?/endSession" done="Signed out everywhere else."
						><button class="button">Sign out everywhere else</button></Form
					>{/if}
			</div>
		</section>
	</div>
</div>
