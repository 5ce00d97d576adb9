<script lang="ts">
	import { CHANNEL_WORDS, offsetInWords, TONE_WORDS } from '$lib/ui/chasing/words';

	let { data } = $props();
</script>

<svelte:head><title>Chase plans · Owed · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/owed">Owed</a> · <a href="/owed/chasing">Chasing</a></p>
	<div class="top">
		<h1>Chase plans</h1>
		<span class="gap"></span>
		<a class="button" href="/owed/chasing/plans/new">Another plan</a>
	</div>
	<p class="quiet under">
		A customer’s own choice comes first, then the plan of its label, then the standard one.
	</p>
	{#each data.plans as plan (plan.id)}
		<section class="panel">
			<div class="head">
				<h2><a href="/owed/chasing/plans/{plan.id}">{plan.name}</a></h2>
				{#if plan.standard}<span class="tag">standard</span>{/if}
				{#each plan.labels as label (label)}<span class="tag">label {label}</span>{/each}
				{#if plan.chosenBy}<span class="quiet"
						>chosen for {plan.chosenBy} {plan.chosenBy === 1 ? 'payer' : 'payers'}</span
					>{/if}
			</div>
			<ol>
				{#each plan.steps as step (step.id)}
					<li class:late={step.offset > 0 && step.tone === 'last'}>
						<b>{offsetInWords(step.offset)}</b>
						<span
							>{CHANNEL_WORDS[step.channel]}, {TONE_WORDS[step.tone]}{step.byHand
								? ', you decide'
								: ''}</span
						>
					</li>
				{/each}
				{#if plan.chargeAfter}<li>
						<b>{offsetInWords(plan.chargeAfter)}</b>
						<span>charged for lateness, by itself</span>
					</li>{/if}
			</ol>
		</section>
	{/each}
</div>

<style>
	.top {
		display: flex;
		gap: 12px;
		align-items: end;
	}
	.gap {
		flex: 1;
	}
	.under {
		margin: 4px 0 14px;
	}
	section {
		padding: 16px 20px;
		margin-bottom: 14px;
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		align-items: center;
		margin-bottom: 10px;
	}
	ol {
		display: flex;
		flex-wrap: wrap;
		border-top: 8px solid var(--tape);
	}
	li {
		flex: 1 1 150px;
		display: grid;
		align-content: start;
		padding: 8px 12px 4px;
		border-left: 1.5px solid var(--ink);
	}
	@media (max-width: 760px) {
		ol {
			display: grid;
			border-top: 0;
			border-left: 8px solid var(--tape);
		}
		li {
			border-left: 0;
			border-top: 1px solid var(--hair);
		}
	}
</style>
