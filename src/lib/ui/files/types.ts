// A photo or file as it is shown.
export interface FileShown {
	id: number;
	name: string;
	type: string;
	/** Bytes. */
	size: number;
	goesOut: boolean;
	/** It has a small picture. */
	picture: boolean;
}
