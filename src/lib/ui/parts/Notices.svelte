<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { notices } from './notices.svelte';
</script>

<div class="notices" role="status" aria-live="polite">
	{#each notices.list as notice (notice.id)}
		<div class="notice">
			<span>{notice.text}</span>
			{#if notice.action}
				{@const action = notice.action}
				<button
					class="act"
					onclick={() => {
						action.run();
						notices.dismiss(notice.id);
					}}>{action.label}</button
				>
			{/if}
			<button class="close" aria-label="Dismiss" onclick={() => notices.dismiss(notice.id)}
				><X size={18} /></button
			>
		</div>
	{/each}
</div>

<style>
	.notices {
		position: fixed;
		inset: auto auto 22px 50%;
		transform: translateX(-50%);
		display: grid;
		gap: 8px;
		z-index: 40;
		width: max-content;
		max-width: calc(100vw - 24px);
	}
	.notice {
		background: var(--strip);
		color: #fff;
		border-radius: 3px;
		border-left: 6px solid var(--tape);
		padding: 10px 12px;
		display: flex;
		gap: 14px;
		align-items: center;
	}
	.act {
		color: var(--tape);
		font-weight: 650;
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 28px;
		cursor: pointer;
	}
	.close {
		display: grid;
		place-items: center;
		min-width: 28px;
		min-height: 28px;
		cursor: pointer;
	}
	@media (max-width: 760px) {
		.notices {
			bottom: 76px;
		}
	}
</style>
