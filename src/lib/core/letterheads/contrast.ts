// Whether a colour can be read on white paper (WCAG 2.2, relative luminance and contrast ratio).

/** What text needs (WCAG 2.2, 1.4.3). */
export const ENOUGH_CONTRAST = 4.5;

/** @param colour `#rrggbb` */
function luminance(colour: string): number {
	const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
		const part = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
		return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
	});
	return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** 1 (white itself) to 21 (black). @param colour `#rrggbb` */
export const contrastOnWhite = (colour: string): number => 1.05 / (luminance(colour) + 0.05);

/** The same colour, only as much darker as it must be to be read on white. @param colour `#rrggbb` */
export function darkEnough(colour: string): string {
	const parts = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
	for (let share = 100; share > 0; share--) {
		const darker = `#${parts
			.map((part) =>
				Math.round((part * share) / 100)
					.toString(16)
					.padStart(2, '0')
			)
			.join('')}`;
		if (contrastOnWhite(darker) >= ENOUGH_CONTRAST) return darker;
	}
	return '#000000';
}
