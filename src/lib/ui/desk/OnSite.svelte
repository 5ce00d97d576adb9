<!-- Where one is expected today. -->
<script lang="ts">
	interface Props {
		visits: {
			id: number;
			from: string;
			jobId: number;
			title: string;
			customer: string;
			site: string | null;
			person: string;
			note: string;
			done: boolean;
		}[];
	}
	let { visits }: Props = $props();
</script>

<section class="panel">
	<h2 class="text-base [font-family:inherit] py-3 px-4 border-b border-b-(--ink)">Today on site</h2>
	<ul>
		{#each visits as visit (visit.id)}
			<li class="border-b border-b-(--hair) last:border-0">
				<a
					class="grid grid-cols-[52px_minmax(0,1fr)] gap-x-4 py-3 px-4 no-underline hover:bg-(--tape-tint)"
					href="/work/{visit.jobId}"
				>
					<b class="numbers">{visit.from || 'any'}</b>
					<span class="min-w-0"
						><b class="block wrap-anywhere [&.done]:line-through" class:done={visit.done}
							>{visit.site || visit.customer}</b
						><span class="quiet block wrap-anywhere"
							>{[visit.note.split('\n')[0] || visit.title, visit.person, visit.done ? 'done' : '']
								.filter(Boolean)
								.join(' · ')}</span
						></span
					>
				</a>
			</li>
		{/each}
	</ul>
</section>
