// Times of day as people type them.

/** `09:30` out of `9:30`, `9.30`, `930`, `9`, `9 am`, `2pm`; empty stays empty, null where it is no time. */
export function readTypedTime(typed: string): string | null {
	const text = typed.trim().toLowerCase();
	if (text === '') return '';
	const found = /^(\d{1,2})(?:[:.\s]?(\d{2}))?\s?(am|pm)?$/.exec(text);
	if (!found) return null;
	const half = found[3];
	const hour = Number(found[1]);
	const minute = Number(found[2] ?? 0);
	if (minute > 59 || hour > 23 || (half && (hour < 1 || hour > 12))) return null;
	const whole = half ? (hour % 12) + (half === 'pm' ? 12 : 0) : hour;
	return `${String(whole).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}
