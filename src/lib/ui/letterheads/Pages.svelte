<!-- The pages of a PDF, drawn as they would be printed. Drawing begins when the first one is shown. -->
<script lang="ts">
	import { untrack } from 'svelte';

	interface Props {
		/** The file; null as long as there is none. */
		pdf: ArrayBuffer | null;
		/** What it is, for whoever cannot see it. */
		label: string;
	}
	let { pdf, label }: Props = $props();
	/** More than anybody looks at to judge a look. */
	const MOST = 6;
	let frame: HTMLElement;
	let pages = $state(0);
	let failed = $state(false);
	let canvases = $state<HTMLCanvasElement[]>([]);
	let drawing = 0;

	async function library() {
		const [pdfjs, worker] = await Promise.all([
			import('pdfjs-dist/legacy/build/pdf.mjs'),
			import('pdfjs-dist/legacy/build/pdf.worker.min.mjs?url')
		]);
		pdfjs.GlobalWorkerOptions.workerSrc = worker.default;
		return pdfjs;
	}

	async function draw(file: ArrayBuffer) {
		const mine = ++drawing;
		try {
			const { getDocument } = await library();
			// A copy: the worker takes what it is given.
			const opened = await getDocument({
				data: new Uint8Array(file.slice(0)),
				isEvalSupported: false
			}).promise;
			if (mine !== drawing) return void opened.loadingTask.destroy();
			const count = Math.min(MOST, opened.numPages);
			pages = count;
			failed = false;
			for (let n = 1; n <= count; n++) {
				const page = await opened.getPage(n);
				const { width } = page.getViewport({ scale: 1 });
				const scale =
					(Math.min(900, untrack(() => frame.clientWidth) || width) / width) *
					Math.min(2, devicePixelRatio);
				const viewport = page.getViewport({ scale: Math.max(0.2, scale) });
				// Drawn beside the page and then put in its place, so that nothing flickers.
				const paper = document.createElement('canvas');
				paper.width = viewport.width;
				paper.height = viewport.height;
				await page.render({ canvas: paper, viewport }).promise;
				const canvas = canvases[n - 1];
				if (mine !== drawing || !canvas) break;
				canvas.width = paper.width;
				canvas.height = paper.height;
				canvas.getContext('2d')?.drawImage(paper, 0, 0);
			}
			void opened.loadingTask.destroy();
		} catch {
			if (mine === drawing) failed = true;
		}
	}

	/** What it was drawn for: drawn anew where it is shown wider, or shown at last. */
	let width = $state(0);
	$effect(() => {
		const watch = new ResizeObserver(([entry]) => {
			const now = Math.round(entry?.contentRect.width ?? 0);
			if (now > width + 8) width = now;
		});
		watch.observe(frame);
		return () => watch.disconnect();
	});
	$effect(() => {
		if (pdf && width > 0) {
			const file = pdf;
			untrack(() => void draw(file));
		}
	});
</script>

<div class="grid gap-3.5 justify-items-center" bind:this={frame}>
	{#if failed}<p class="wrong" role="alert">
			This browser cannot draw the page here. Open it as a PDF instead.
		</p>{/if}
	{#each { length: Math.max(1, pages) } as _, index (index)}
		<figure
			class={['w-full max-w-225 bg-[#fff] border border-(--hair)', { 'min-h-100': pages === 0 }]}
			role="img"
			aria-label={pages > 1 ? `${label}, page ${index + 1} of ${pages}` : label}
		>
			<canvas bind:this={canvases[index]} class="block w-full"></canvas>
		</figure>
	{/each}
</div>
