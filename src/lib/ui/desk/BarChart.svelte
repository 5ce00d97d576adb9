<!-- Bars in our materials, each of which opens what is behind it; the same as a table, for keys and screen readers. -->
<script lang="ts">
	import Table from '$lib/ui/parts/Table.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';

	interface Series {
		name: string;
		/** A colour of the tokens. */
		color: string;
		/** How its bars are filled besides their colour. */
		pattern: 'plain' | 'lines' | 'dots' | 'hatch';
		values: number[];
	}
	interface Props {
		title: string;
		note?: string;
		categories: string[];
		series: Series[];
		stacked?: boolean;
		/** Bars lie, one below the other. */
		lying?: boolean;
		/** How a value is written. */
		write: (value: number) => string;
		href: (series: number, index: number) => string;
	}
	let { title, note = '', categories, series, stacked, lying, write, href }: Props = $props();
	let root = $state<HTMLElement>();
	let failed = $state(false);
	const id = $props.id();

	const decal = (pattern: Series['pattern'], color: string) =>
		({
			plain: { symbol: 'none' },
			lines: { symbol: 'rect', color, dashArrayX: [1, 0], dashArrayY: [2, 4], symbolSize: 1 },
			dots: { symbol: 'circle', color, dashArrayX: [[4, 4]], dashArrayY: [4, 4], symbolSize: 0.6 },
			hatch: {
				symbol: 'rect',
				color,
				dashArrayX: [1, 0],
				dashArrayY: [2, 3],
				symbolSize: 1,
				rotation: Math.PI / 4
			}
		})[pattern];

	onMount(() => {
		let end = () => {};
		if (root)
			void draw(root)
				.then((stop) => (end = stop))
				// The table says the same: a browser that cannot draw loses nothing.
				.catch(() => (failed = true));
		return () => end();
	});

	async function draw(root: HTMLElement): Promise<() => void> {
		const [core, charts, parts, renderers] = await Promise.all([
			import('echarts/core'),
			import('echarts/charts'),
			import('echarts/components'),
			import('echarts/renderers')
		]);
		core.use([
			charts.BarChart,
			parts.GridComponent,
			parts.TooltipComponent,
			parts.LegendComponent,
			parts.AriaComponent,
			renderers.SVGRenderer
		]);
		/** In how many rows the names of the series stand above the bars; the chart leaves no room for them by itself. */
		const legendRows = (width: number): number => {
			if (series.length < 2) return 0;
			let rows = 1;
			let used = 0;
			for (const { name } of series) {
				const wide = 48 + 7.5 * name.length;
				if (used > 0 && used + wide > width) {
					rows++;
					used = 0;
				}
				used += wide;
			}
			return rows;
		};
		const chart = core.init(root, null, { renderer: 'svg' });
		const show = () => {
			// The probe turns a token, light or dark, into a colour the chart understands.
			const probe = document.createElement('span');
			root.append(probe);
			const token = (name: string) => {
				probe.style.color = `var(--${name})`;
				return getComputedStyle(probe).color;
			};
			const [ink, quiet, hair, sheet] = ['ink', 'ink-2', 'hair', 'sheet'].map(token);
			const font = "'Atkinson Hyperlegible Next Variable', sans-serif";
			const label = { color: quiet, fontFamily: font, fontSize: 14 };
			const values = {
				type: 'value' as const,
				axisLabel: { ...label, formatter: write },
				splitLine: { lineStyle: { color: hair } }
			};
			const names = {
				type: 'category' as const,
				data: categories,
				axisLabel: { ...label, ...(lying ? { width: 170, overflow: 'truncate' as const } : {}) },
				axisLine: { lineStyle: { color: ink } },
				axisTick: { show: false },
				...(lying ? { inverse: true } : {})
			};
			chart.setOption(
				{
					animation: false,
					aria: { enabled: false },
					grid: {
						left: 8,
						right: 16,
						top: 14 + 28 * legendRows(root.clientWidth),
						bottom: 6,
						containLabel: true
					},
					...(series.length > 1
						? {
								legend: {
									top: 0,
									left: 0,
									textStyle: { ...label, color: ink },
									itemGap: 18,
									selectedMode: false
								}
							}
						: {}),
					tooltip: {
						trigger: 'item',
						confine: true,
						backgroundColor: sheet,
						borderColor: ink,
						textStyle: { color: ink, fontFamily: font },
						valueFormatter: (value: unknown) => write(Number(value))
					},
					xAxis: lying ? values : names,
					yAxis: lying ? names : values,
					series: series.map((one) => ({
						type: 'bar' as const,
						name: one.name,
						data: one.values,
						...(stacked ? { stack: 'all' } : {}),
						cursor: 'pointer',
						barMaxWidth: 44,
						itemStyle: {
							color: token(one.color),
							borderColor: ink,
							borderWidth: 0.5,
							decal: decal(one.pattern, sheet!)
						},
						emphasis: { itemStyle: { borderWidth: 2 } }
					}))
				},
				true
			);
			probe.remove();
		};
		show();
		chart.on('click', ({ seriesIndex, dataIndex }) => {
			if (seriesIndex !== undefined) void goto(href(seriesIndex, dataIndex));
		});
		const resizing = new ResizeObserver(() => chart.resize());
		resizing.observe(root);
		const dark = window.matchMedia('(prefers-color-scheme: dark)');
		dark.addEventListener('change', show);
		const chosen = new MutationObserver(show);
		chosen.observe(document.documentElement, { attributeFilter: ['data-mode'] });
		return () => {
			resizing.disconnect();
			chosen.disconnect();
			dark.removeEventListener('change', show);
			chart.dispose();
		};
	}
</script>

<section class="panel py-4 px-4.5 grid gap-2 min-w-0" aria-labelledby="{id}-title">
	<h2 id="{id}-title">{title}</h2>
	{#if note}<p class="quiet">{note}</p>{/if}
	{#if !failed}<div
			class="h-75 min-w-0 overflow-hidden [&.lying]:h-[calc(34px_*_var(--bars)_+_50px)]"
			class:lying
			style:--bars={categories.length}
			aria-hidden="true"
			bind:this={root}
		></div>{/if}
	<Fold label="{title}: the same as a table" open={failed}>
		<div class="overflow-x-auto">
			<Table
				label={title}
				rows={categories.map((category, index) => ({ category, index }))}
				columns={[
					{ id: 'category', head: title, quiet: true, text: (row) => row.category, names: true },
					...series.map((one, n) => ({
						id: one.name,
						head: one.name,
						figures: true,
						text: ({ index }: { index: number }) =>
							one.values[index] ? write(one.values[index]) : '–',
						href: ({ index }: { index: number }) => (one.values[index] ? href(n, index) : null)
					}))
				]}
				id={(row) => row.index}
				flush
			/>
		</div>
	</Fold>
</section>
