<!-- The calendar under a box for a day: Skeleton's picker, in British order, weeks from Monday. -->
<script lang="ts">
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { DatePicker, parseDate } from '@skeletonlabs/skeleton-svelte';

	interface Props {
		value: string;
		today: string;
		min: string | undefined;
		max: string | undefined;
		onpick: (day: string) => void;
		onclose: () => void;
	}
	let { value, today, min, max, onpick, onclose }: Props = $props();
	const VIEWS = ['day', 'month', 'year'] as const;
</script>

<DatePicker
	class="pointer-events-none absolute inset-0"
	locale="en-GB"
	timeZone="Europe/London"
	startOfWeek={1}
	open
	closeOnSelect
	defaultValue={value ? [parseDate(value)] : []}
	defaultFocusedValue={parseDate(value || today || '2026-01-01')}
	{...min ? { min: parseDate(min) } : {}}
	{...max ? { max: parseDate(max) } : {}}
	positioning={{ placement: 'bottom-end', gutter: 4 }}
	onValueChange={({ value: [day] }) => day && onpick(day.toString())}
	onOpenChange={({ open }) => !open && onclose()}
>
	<DatePicker.Control class="absolute inset-0" />
	<DatePicker.Positioner class="z-50">
		<DatePicker.Content
			class="panel pointer-events-auto w-72 border-[1.5px] border-[var(--ink)] p-3"
		>
			{#each VIEWS as view (view)}
				<DatePicker.View {view}>
					<DatePicker.Context>
						{#snippet children(picker)}
							<DatePicker.ViewControl class="mb-2 flex items-center justify-between">
								<DatePicker.PrevTrigger class="grid size-9 place-items-center"
									><ChevronLeft size={18} aria-hidden="true" /></DatePicker.PrevTrigger
								>
								<DatePicker.ViewTrigger class="min-h-9 px-3 font-semibold"
									><DatePicker.RangeText /></DatePicker.ViewTrigger
								>
								<DatePicker.NextTrigger class="grid size-9 place-items-center"
									><ChevronRight size={18} aria-hidden="true" /></DatePicker.NextTrigger
								>
							</DatePicker.ViewControl>
							<DatePicker.Table class="numbers w-full border-collapse">
								{#if view === 'day'}
									<DatePicker.TableHead>
										<DatePicker.TableRow>
											{#each picker().weekDays as day (day.long)}
												<DatePicker.TableHeader class="pb-1 text-center text-sm font-normal">
													<span aria-hidden="true">{day.short.slice(0, 2)}</span><span
														class="sr-only">{day.long}</span
													>
												</DatePicker.TableHeader>
											{/each}
										</DatePicker.TableRow>
									</DatePicker.TableHead>
									<DatePicker.TableBody>
										{#each picker().weeks as week, row (row)}
											<DatePicker.TableRow>
												{#each week as day (day.toString())}
													<DatePicker.TableCell value={day} class="p-0">
														<DatePicker.TableCellTrigger
															class={['day-cell', day.toString() === today && 'now']}
															>{day.day}</DatePicker.TableCellTrigger
														>
													</DatePicker.TableCell>
												{/each}
											</DatePicker.TableRow>
										{/each}
									</DatePicker.TableBody>
								{:else}
									<DatePicker.TableBody>
										{#each view === 'month' ? picker().getMonthsGrid( { columns: 4, format: 'short' } ) : picker().getYearsGrid( { columns: 4 } ) as cells, row (row)}
											<DatePicker.TableRow>
												{#each cells as cell (cell.value)}
													<DatePicker.TableCell value={cell.value} class="p-0">
														<DatePicker.TableCellTrigger class="day-cell"
															>{cell.label}</DatePicker.TableCellTrigger
														>
													</DatePicker.TableCell>
												{/each}
											</DatePicker.TableRow>
										{/each}
									</DatePicker.TableBody>
								{/if}
							</DatePicker.Table>
						{/snippet}
					</DatePicker.Context>
				</DatePicker.View>
			{/each}
		</DatePicker.Content>
	</DatePicker.Positioner>
</DatePicker>
