<script lang="ts">
	import { ROLE_NAMES, ROLES, type Role } from '$lib/core/people/roles';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data } = $props();
	let changing = $state<number | null>(null);
	let role = $state<Role>('onSite');
	const STATES = {
		active: '',
		invited: 'invited, has not joined yet',
		lapsed: 'the invitation has lapsed'
	} as const;
</script>

{#snippet password()}
	<Field label="Your own password" name="current" type="password" autocomplete="current-password" />
{/snippet}
{#snippet roles()}
	<Choice label="What they may do" name="role" bind:value={role} hint={ROLE_NAMES[role].may}>
		{#each ROLES as one (one)}<option value={one}>{ROLE_NAMES[one].name}</option>{/each}
	</Choice>
	{#if role === 'onSite'}<Tick name="seesPrices">Sees what is charged for the work</Tick>{/if}
{/snippet}

<svelte:head><title>People · Axiometer</title></svelte:head>
<div class="page max-w-235">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-1">People</h1>
	<p class="mb-4">
		Who may use your books, and how far. Each signs in with an e-mail address and a password of
		their own; what they do stands in the trails under their name.
	</p>
	<ul class="panel grid mb-5">
		{#each data.people as person (person.id)}
			<li class="border-b border-(--hair) last:border-b-0 py-3 px-4.5">
				<div class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
					<span class="grid">
						<span class="flex flex-wrap items-baseline gap-x-2.5"
							><b class="font-semibold">{person.name || 'The owner'}</b><span class="tag"
								>{ROLE_NAMES[person.role].name}</span
							>{#if person.id === data.me}<span class="quiet">you</span>{/if}</span
						>
						<span class="quiet"
							>{[
								person.email,
								STATES[person.state],
								person.factor ? 'second factor' : '',
								person.seesPrices ? 'sees prices' : ''
							]
								.filter(Boolean)
								.join(' · ')}</span
						>
					</span>
					<span class="flex flex-wrap gap-1">
						{#if person.state !== 'active'}<Form
								action="?/again"
								hidden={{ id: person.id }}
								done="Invited once more; the link before opens nothing."
								><button class="button plain" aria-label="Invite {person.name} again"
									>Invite again</button
								></Form
							>{/if}
						<button
							class="button plain with-scripts"
							type="button"
							aria-label="Change {person.name || 'the owner'}"
							onclick={() => {
								changing = changing === person.id ? null : person.id;
								role = person.role;
							}}>Change</button
						>
					</span>
				</div>
				{#if changing === person.id}
					<div class="grid grid-cols-2 gap-5 mt-3 narrow:grid-cols-1">
						<Form
							class="grid gap-3 content-start"
							action="?/role"
							hidden={{ id: person.id, name: person.name }}
							done="It holds from the next press."
							ondone={() => (changing = null)}
						>
							{@render roles()}
							{@render password()}
							<div><button class="button filled">Keep the role</button></div>
						</Form>
						<Form
							class="grid gap-3 content-start border-l border-(--hair) pl-5 narrow:border-l-0 narrow:pl-0"
							action="?/remove"
							hidden={{ id: person.id, name: person.name }}
							done="They are out. Their visits wait to be booked anew."
							ondone={() => (changing = null)}
						>
							<p>
								Removed, they are out at once. What they did stays in the trails; their visits to
								come wait to be booked anew.
							</p>
							{@render password()}
							<div><button class="button">Remove {person.name}</button></div>
						</Form>
					</div>
				{/if}
			</li>
		{/each}
	</ul>
	<Fold label="Invite somebody" open={data.people.length === 1}>
		<Form
			class="panel grid grid-cols-[repeat(auto-fit,minmax(230px,1fr))] items-start gap-3.5 py-4 px-4.5"
			action="?/invite"
			reset
			done="The invitation is on its way; its link holds for seven days."
		>
			<Field label="Name" name="name" maxlength={100} />
			<Field label="E-mail" name="email" type="email" maxlength={200} />
			{@render roles()}
			{@render password()}
			<div class="self-end"><button class="button filled">Send the invitation</button></div>
		</Form>
	</Fold>
</div>
