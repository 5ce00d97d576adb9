<script lang="ts">
	import { displayMoment } from '$lib/core/calendar/conversion';
	import { counted } from '$lib/core/words';
	import Form from '$lib/ui/parts/Form.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { data } = $props();
	let sealed = $derived(data.sealed);
	let anew = $state<{ sessions: number; links: number } | null>(null);
	const WHY = { night: 'by night', hand: 'by hand', update: 'before an update' } as const;
	const size = (bytes: number) =>
		bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
</script>

<svelte:head><title>Backups and your data · Settings · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-3.5">Backups and your data</h1>
	<div class="grid grid-cols-[minmax(0,1fr)_380px] gap-5.5 items-start max-[1050px]:grid-cols-1">
		<div class="grid gap-4.5">
			<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="backups">
				<div class="flex flex-wrap items-center gap-3">
					<h2 class="flex-1" id="backups">Backups</h2>
					<Form
						action="?/backup"
						done={({ problem }) =>
							problem ? `It failed: ${problem}.` : 'The backup is made, and was looked through.'}
					>
						<button class="button filled">Back up now</button>
					</Form>
				</div>
				<p class="my-2 text-[1.1rem]">
					{#if data.whole}
						The last one is of <b>{displayMoment(data.whole.startedAt)}</b>{data.whole.secondAt
							? ', and lies in the second place too'
							: ''}.
					{:else}
						There is none yet. One is made by itself every night.
					{/if}
				</p>
				{#if data.trouble}<p class="wrong mb-2">{data.trouble}</p>{/if}
				{#if data.keyLost}<p class="wrong mb-2">
						The passphrase is not known here any more. Enter it again, below.
					</p>{/if}
				{#if data.here.length}
					<ul>
						{#each data.here as one (one.name)}
							<li
								class="flex flex-wrap gap-x-4 items-center py-1 border-b border-b-(--hair) last:border-0"
							>
								<span class="flex-1 min-w-45">{displayMoment(one.madeAt)}</span>
								<span class="quiet min-w-30">{WHY[one.why]}{one.sealed ? ', sealed' : ''}</span>
								<span class="quiet numbers min-w-20 text-right">{size(one.bytes)}</span>
								<a class="button plain" href="/settings/keep/{one.name}" download
									>Download <span class="sr-only">the backup of {displayMoment(one.madeAt)}</span
									></a
								>
							</li>
						{/each}
					</ul>
				{/if}
				<p class="quiet mt-2">
					They lie in <span class="mono wrap-anywhere">{data.place}</span>, photos and files beside
					them once for all. The newest of seven days, five weeks and twelve months stay.
				</p>
				<Fold label="How one comes back">
					<ol class="list-decimal pl-5 grid gap-1.5">
						<li>Stop Axiometer.</li>
						<li>
							<span class="mono wrap-anywhere">npm run restore -- FILE</span> says what is in it;
							with
							<span class="mono">--yes</span> it takes the place of the data. What was there is kept as
							a backup.
						</li>
						<li>
							Start Axiometer. Nothing goes out until you have seen what may have happened since,
							and said from which number you go on.
						</li>
					</ol>
					<p class="mt-2">
						On a machine without any books, the first page restores one too, with the code of the
						console.
					</p>
				</Fold>
			</section>

			<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="where">
				<h2 id="where">A second place, and a passphrase</h2>
				<p class="quiet mb-3">
					A backup beside the data is lost with the machine. A stick, a second disk or a shared
					folder takes a copy each night it is there.
				</p>
				<Form
					class="grid gap-3 max-w-140"
					action="?/setting"
					done="Saved. It holds from the next backup on."
				>
					<Field
						label="Folder of the second place"
						name="folder"
						value={data.folder}
						autocomplete="off"
						hint="Such as /media/stick/axiometer. Empty: none."
					/>
					<Tick name="sealed" bind:checked={sealed}>Seal them with a passphrase</Tick>
					{#if sealed}
						<p>
							<b>Whoever loses the passphrase loses the backups.</b> Nobody can open them without it.
							Write it down where this machine is not.
						</p>
						<Field
							label={data.sealed && !data.keyLost
								? 'Another passphrase; empty: as before'
								: 'Passphrase'}
							name="passphrase"
							type="password"
							autocomplete="new-password"
						/>
						<Field
							label="The same again"
							name="again"
							type="password"
							autocomplete="new-password"
						/>
					{/if}
					<div><button class="button">Save</button></div>
				</Form>
			</section>
		</div>
		<aside class="grid gap-4.5">
			<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="all">
				<h2 id="all">Take everything with you</h2>
				<p class="my-2">
					One ZIP that is read without Axiometer: every document as PDF, every table as CSV with
					what its columns mean, photos and files, contacts, visits, the journal in full.
				</p>
				<a class="button" href="/settings/keep/export" download data-sveltekit-preload-data="off"
					>Download all of it</a
				>
				<p class="quiet mt-2">
					What is kept of one customer is on that customer’s page, under <i>Their data</i>.
				</p>
			</section>
			<section class="panel py-5 px-5.5 max-[900px]:p-4" aria-labelledby="lost">
				<h2 id="lost">A device is lost or stolen</h2>
				{#if anew}
					<p class="my-2" aria-live="polite">
						<b>Done.</b>
						{anew.sessions
							? `${counted(anew.sessions, 'sign-in')} ended`
							: 'Nobody else was signed in'};
						{counted(anew.links, 'link')} of customers renewed. Now change, in this order:
					</p>
					<ol class="list-decimal pl-5 grid gap-1.5">
						<li>
							<a href="/settings">your password here</a>, which signs this device out too;
						</li>
						<li>the password of your mail account, and the one Axiometer sends with;</li>
						<li>the secrets of the card, bank and text services, where they lay on the device;</li>
						<li>the passphrase of the backups, if it lay on it.</li>
						<li>
							Customers with something open need their new link: <a href="/owed/statements"
								>send statements</a
							>.
						</li>
					</ol>
				{:else}
					<p class="my-2">
						One press signs everybody out but this device, forgets every browser, and renews all
						links of customers: those in mails and on paper open nothing any more. Then it lists
						what to change.
					</p>
					<Form
						action="?/stolen"
						done="Everybody else is out."
						ondone={(answer) => (anew = answer.anew as typeof anew)}
					>
						<button class="button">Shut everybody out</button>
					</Form>
				{/if}
			</section>
		</aside>
	</div>
</div>
