// The keys of the app, as they are listed on `?`.
export interface KeyGroup {
	name: string;
	keys: readonly (readonly [keys: string, does: string])[];
}

export const KEYS: readonly KeyGroup[] = [
	{
		name: 'Everywhere',
		keys: [
			['Ctrl K', 'find or do anything'],
			['?', 'this list'],
			['Ctrl Z', 'take back what a notice offers to undo'],
			['Alt T', 'go to the notices']
		]
	},
	{
		name: 'In the lines of a sheet',
		keys: [
			['Enter', 'go on to the next box, and from the last to a new line'],
			['↑ ↓', 'to the line above or below'],
			['a letter', 'finds on the price list: ↓ goes in, Enter takes it'],
			['Alt ↑ ↓', 'move the line'],
			['Ctrl D', 'copy the line'],
			['Alt Delete', 'remove the line'],
			['Ctrl Z', 'take back a line moved, copied, removed or pasted'],
			['Ctrl Shift Z', 'do it again'],
			['Alt W', 'show the workings of the line'],
			['w on an amount', 'show its workings'],
			['Ctrl Enter', 'issue']
		]
	},
	{
		name: 'In a box for a day',
		keys: [
			['3/11, 3 nov', 'a day; the year is the one that is nearest'],
			['fri', 'the next Friday'],
			['+14', 'fourteen days from today'],
			['Alt ↓', 'open the calendar']
		]
	}
];
